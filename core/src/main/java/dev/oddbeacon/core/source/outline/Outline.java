package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.language.TokenSink;

/** Finds declarations among tokens. For one file. */
interface Outline extends TokenSink {
    /** The tokens have ended. */
    void finish(int end);

    @Override
    default void word(int start, int end, dev.oddbeacon.core.source.language.Word word) {}

    @Override
    default void sign(int at, byte sign) {}

    @Override
    default void literal(int start, int end) {}

    @Override
    default void line(int at) {}
}
