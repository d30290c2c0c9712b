package dev.oddbeacon.core.source;

import dev.oddbeacon.core.text.Coded;

/** Part of a file. Comments and strings include their delimiters; a file without a language profile is all code. */
public enum Region implements Coded {
    CODE(0),
    COMMENT(1),
    STRING(2);

    private static final Region[] BY_CODE = Coded.byCode(values());

    private final int code;

    Region(int code) {
        this.code = code;
    }

    @Override
    public int code() {
        return code;
    }

    public static Region of(int code) {
        return BY_CODE[code];
    }
}
