package dev.oddbeacon.client.output.hits;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.stream.Collectors;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** What columns and matches count, by the names that the Language Server Protocol gives them. */
public enum PositionEncoding {
    /** Bytes. */
    UTF_8("utf-8"),
    UTF_16("utf-16"),
    /** Code points. */
    UTF_32("utf-32");

    private final String label;

    PositionEncoding(String label) {
        this.label = label;
    }

    /** From its label. */
    public static final class Converter implements ITypeConverter<PositionEncoding> {
        @Override
        public PositionEncoding convert(String label) {
            return Arrays.stream(values())
                    .filter(encoding -> encoding.label.equals(label))
                    .findFirst()
                    .orElseThrow(() -> new TypeConversionException("\"" + label + "\" is none of "
                            + Arrays.stream(values())
                                    .map(encoding -> encoding.label)
                                    .collect(Collectors.joining(", "))));
        }
    }

    /** @param units UTF-16 units from the start of the line @return the same place in what this one counts */
    int place(String line, int units) {
        String before = line.substring(0, Math.min(units, line.length()));
        return switch (this) {
            case UTF_8 -> before.getBytes(StandardCharsets.UTF_8).length;
            case UTF_16 -> units;
            case UTF_32 -> before.codePointCount(0, before.length());
        };
    }
}
