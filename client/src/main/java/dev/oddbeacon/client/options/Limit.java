package dev.oddbeacon.client.options;

import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A number of results, or all of them. */
public record Limit(long most) {
    public static final class Converter implements ITypeConverter<Limit> {
        @Override
        public Limit convert(String text) {
            if (text.equals("all")) {
                return new Limit(Long.MAX_VALUE);
            }
            try {
                long most = Long.parseLong(text);
                if (most > 0) {
                    return new Limit(most);
                }
            } catch (NumberFormatException e) {
                // said below
            }
            throw new TypeConversionException("\"" + text + "\" is neither a number from 1 nor the word all");
        }
    }
}
