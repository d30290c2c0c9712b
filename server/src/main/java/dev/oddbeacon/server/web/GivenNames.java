package dev.oddbeacon.server.web;

import com.google.re2j.Pattern;

/** Names that people give to what they keep, and what they say of it. */
public final class GivenNames {
    private static final Pattern NAME = Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]{0,99}");
    private static final int LONGEST_DESCRIPTION = 500;

    private GivenNames() {}

    /**
     * @param what is named, with its article
     * @throws BadRequestException if it cannot have the name
     */
    public static void check(String what, String name) {
        if (!NAME.matcher(name).matches()) {
            throw new BadRequestException(
                    "\"" + name + "\" cannot be the name of " + what
                            + ". Take up to 100 letters, digits, spaces, dots, dashes and underscores, the first a letter or digit.");
        }
    }

    /** @throws BadRequestException if a description is too long */
    public static void checkDescription(String name, String description) {
        if (description != null && description.length() > LONGEST_DESCRIPTION) {
            throw new BadRequestException("The description of " + name + " has more than " + LONGEST_DESCRIPTION
                    + " characters. Shorten it.");
        }
    }
}
