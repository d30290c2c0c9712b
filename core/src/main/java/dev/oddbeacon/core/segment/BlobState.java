package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.text.Coded;

/** The part of a blob that the index holds: its text, or only that it has none. */
public enum BlobState implements Coded {
    TEXT(0),
    BINARY(1);

    private static final BlobState[] BY_CODE = Coded.byCode(values());

    private final int code;

    BlobState(int code) {
        this.code = code;
    }

    @Override
    public int code() {
        return code;
    }

    static BlobState of(int code) {
        return BY_CODE[code];
    }
}
