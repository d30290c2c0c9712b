package dev.oddbeacon.core.source.language;

/** Is told what a {@link Lexer} finds, from left to right. Offsets are bytes. */
public interface TokenSink {
    /** A word: a name, or one with a meaning. */
    void word(int start, int end, Word word);

    /** A sign of one character. */
    void sign(int at, byte sign);

    /** A number or a string. A string with code inside comes in parts. */
    void literal(int start, int end);

    /** The end of a line, unless it lies in a comment or a string, or the line goes on. */
    void line(int at);
}
