package dev.oddbeacon.core.source;

/** Part of a file. Comments and strings include their delimiters; a file without a language profile is all code. */
public enum Region {
    CODE, COMMENT, STRING
}
