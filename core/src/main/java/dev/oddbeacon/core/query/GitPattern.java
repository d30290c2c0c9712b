package dev.oddbeacon.core.query;

import java.util.ArrayList;
import java.util.List;

/**
 * Reads patterns in the syntax of Git's ignore files into globs: a backslash takes a character's meaning away,
 * {@code **} means folders only as a whole name, and a set may name classes, {@code [[:digit:]]}.
 */
final class GitPattern {
    private final String pattern;
    private final List<Glob.Token> tokens = new ArrayList<>();
    private int at;

    GitPattern(String pattern) {
        this.pattern = pattern;
    }

    /** @throws InvalidQueryException if it is not valid, with the place */
    List<Glob.Token> tokens() {
        while (at < pattern.length()) {
            boolean startsName = at == 0 || pattern.charAt(at - 1) == '/';
            int c = pattern.codePointAt(at);
            if (c == '*') {
                tokens.add(Glob.Token.of(stars(startsName)));
            } else if (c == '?') {
                tokens.add(Glob.Token.of(Glob.Kind.ANY));
                at++;
            } else if (c == '[') {
                tokens.add(set());
            } else {
                tokens.add(Glob.Token.character(character()));
            }
        }
        return tokens;
    }

    /** Two stars or more that make up a whole name stand for folders, all others for a part of a name. */
    private Glob.Kind stars(boolean startsName) {
        int start = at;
        while (at < pattern.length() && pattern.charAt(at) == '*') {
            at++;
        }
        if (!startsName || at - start < 2 || at < pattern.length() && pattern.charAt(at) != '/') {
            return Glob.Kind.NAME;
        }
        boolean isLast = at == pattern.length();
        at += isLast ? 0 : 1;
        return isLast ? Glob.Kind.EVERYTHING : Glob.Kind.FOLDERS;
    }

    /** One character, which a backslash may stand before. */
    private int character() {
        if (pattern.charAt(at) == '\\') {
            at++;
            if (at == pattern.length()) {
                throw new InvalidQueryException("A backslash stands at the end. Write \\\\ for a backslash.", at - 1);
            }
        }
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        return c;
    }

    private Glob.Token set() {
        int open = at++;
        boolean negated = at < pattern.length() && (pattern.charAt(at) == '!' || pattern.charAt(at) == '^');
        at += negated ? 1 : 0;
        List<Integer> members = new ArrayList<>();
        for (boolean first = true; at < pattern.length() && (first || pattern.charAt(at) != ']'); first = false) {
            if (pattern.startsWith("[:", at) && pattern.indexOf(":]", at) > 0) {
                int end = pattern.indexOf(":]", at);
                addClass(pattern.substring(at + 2, end), members);
                at = end + 2;
                continue;
            }
            int from = character();
            boolean isRange = at + 1 < pattern.length() && pattern.charAt(at) == '-' && pattern.charAt(at + 1) != ']';
            at += isRange ? 1 : 0;
            members.add(from);
            members.add(isRange ? character() : from);
        }
        if (at >= pattern.length()) {
            throw new InvalidQueryException(
                    "This [ is not closed. Write ] at the end of the characters, or \\[ for a bracket.", open);
        }
        at++;
        return Glob.Token.set(negated, members);
    }

    private void addClass(String name, List<Integer> members) {
        members.addAll(
                switch (name) {
                    case "alpha" -> List.of((int) 'a', (int) 'z', (int) 'A', (int) 'Z');
                    case "digit" -> List.of((int) '0', (int) '9');
                    case "alnum" -> List.of((int) 'a', (int) 'z', (int) 'A', (int) 'Z', (int) '0', (int) '9');
                    case "upper" -> List.of((int) 'A', (int) 'Z');
                    case "lower" -> List.of((int) 'a', (int) 'z');
                    case "xdigit" -> List.of((int) '0', (int) '9', (int) 'a', (int) 'f', (int) 'A', (int) 'F');
                    case "space" -> List.of(9, 13, 32, 32);
                    case "blank" -> List.of(9, 9, 32, 32);
                    case "punct" -> List.of(33, 47, 58, 64, 91, 96, 123, 126);
                    case "cntrl" -> List.of(0, 31, 127, 127);
                    case "graph" -> List.of(33, 126);
                    case "print" -> List.of(32, 126);
                    default ->
                        throw new InvalidQueryException(
                                "There is no class of characters [:" + name
                                        + ":]. Known are alpha, digit, alnum, upper, lower, xdigit, space, blank, punct, cntrl, graph, print.",
                                at);
                });
    }
}
