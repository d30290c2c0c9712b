package dev.oddbeacon.core.query;

import java.util.ArrayList;
import java.util.List;

/**
 * A pattern for names and paths: {@code *} and {@code ?} stand for characters of one name, {@code **} for any
 * number of folders, {@code [a-z]} for one of a range, {@code [!a-z]} for one of all others; everything else stands for
 * itself.
 *
 * <p>Matching goes back to the last {@code *} and the last {@code **} only, which is enough, because whatever follows
 * one of them is best found as early as possible: at most quadratic in the text for a given pattern.
 */
public final class Glob {
    /** One character, or one star. Members of a set are pairs of first and last. */
    record Token(Kind kind, int character, int[] members) {
        static Token of(Kind kind) {
            return new Token(kind, 0, NO_MEMBERS);
        }

        static Token character(int c) {
            return new Token(Kind.CHARACTER, c, NO_MEMBERS);
        }

        /** @param members pairs of first and last */
        static Token set(boolean negated, List<Integer> members) {
            return new Token(
                    negated ? Kind.NONE_OF : Kind.ONE_OF,
                    0,
                    members.stream().mapToInt(Integer::intValue).toArray());
        }

        boolean takes(int c) {
            return switch (kind) {
                case CHARACTER -> c == character;
                case ANY -> c != '/';
                case ONE_OF -> c != '/' && holds(c);
                case NONE_OF -> c != '/' && !holds(c);
                case NAME, FOLDERS, EVERYTHING -> throw new IllegalStateException();
            };
        }

        private boolean holds(int c) {
            for (int i = 0; i < members.length; i += 2) {
                if (c >= members[i] && c <= members[i + 1]) {
                    return true;
                }
            }
            return false;
        }
    }

    enum Kind {
        CHARACTER,
        ANY,
        ONE_OF,
        NONE_OF,
        /** Any number of characters within a name. */
        NAME,
        /** Any number of whole folders. */
        FOLDERS,
        EVERYTHING
    }

    private static final int[] NO_MEMBERS = {};

    private enum Syntax {
        NAME,
        PATH,
        GIT
    }

    private final String glob;
    private final Syntax syntax;
    private final Token[] tokens;
    private final boolean takesBelow;
    private final String start;
    private final String end; // what every text that matches ends with

    private Glob(String glob, List<Token> tokens, Syntax syntax) {
        this.glob = glob;
        this.syntax = syntax;
        this.tokens = tokens.toArray(Token[]::new);
        this.takesBelow = syntax == Syntax.PATH;
        StringBuilder literal = new StringBuilder();
        tokens.stream()
                .takeWhile(token -> token.kind == Kind.CHARACTER)
                .forEach(token -> literal.appendCodePoint(token.character));
        this.start = literal.toString();
        StringBuilder last = new StringBuilder();
        if (!takesBelow) {
            tokens.reversed().stream()
                    .takeWhile(token -> token.kind == Kind.CHARACTER)
                    .forEach(token -> last.insert(0, Character.toString(token.character)));
        }
        this.end = last.toString();
    }

    /** Escapes text so that it matches itself as a glob. */
    public static String escape(String text) {
        StringBuilder escaped = new StringBuilder();
        text.chars().forEach(c -> {
            if (c == '[' || c == '*' || c == '?') {
                escaped.append('[').append((char) c).append(']');
            } else {
                escaped.append((char) c);
            }
        });
        return escaped.toString();
    }

    /** A glob that matches a whole name. */
    public static Glob ofName(String glob) {
        return new Glob(glob, tokens(glob), Syntax.NAME);
    }

    /**
     * For a folder, with all below it, or a file. With a slash it starts at the root of the repository; without
     * one the name may stand at any depth.
     */
    public static Glob ofPath(String glob) {
        String trimmed = glob.endsWith("/") ? glob.substring(0, glob.length() - 1) : glob;
        String inner = trimmed.startsWith("/") ? trimmed.substring(1) : trimmed;
        List<Token> tokens = tokens(inner.isEmpty() ? "**" : inner);
        if (!trimmed.contains("/")) {
            tokens.addFirst(Token.of(Kind.FOLDERS));
        }
        return new Glob(glob, tokens, Syntax.PATH);
    }

    /**
     * For a path as a whole, or a name, in the syntax of Git's ignore files.
     *
     * @throws InvalidQueryException if it is not valid, with the place
     */
    public static Glob ofGit(String pattern) {
        return new Glob(pattern, new GitPattern(pattern).tokens(), Syntax.GIT);
    }

    private static List<Token> tokens(String glob) {
        List<Token> tokens = new ArrayList<>();
        for (int i = 0; i < glob.length(); ) {
            int c = glob.codePointAt(i);
            boolean startsName = i == 0 || glob.charAt(i - 1) == '/';
            if (startsName && glob.startsWith("**/", i)) {
                tokens.add(Token.of(Kind.FOLDERS));
                i += 3;
            } else if (glob.startsWith("**", i)) {
                tokens.add(Token.of(Kind.EVERYTHING));
                i += 2;
            } else if (c == '[' && glob.indexOf(']', i + 2) > 0) {
                int close = glob.indexOf(']', i + 2);
                tokens.add(set(glob.substring(i + 1, close)));
                i = close + 1;
            } else {
                tokens.add(new Token(c == '*' ? Kind.NAME : c == '?' ? Kind.ANY : Kind.CHARACTER, c, NO_MEMBERS));
                i += Character.charCount(c);
            }
        }
        return tokens;
    }

    private static Token set(String inside) {
        boolean negated = inside.startsWith("!") || inside.startsWith("^");
        int[] characters = inside.substring(negated ? 1 : 0).codePoints().toArray();
        List<Integer> members = new ArrayList<>();
        for (int i = 0; i < characters.length; i++) {
            boolean isRange = i + 2 < characters.length && characters[i + 1] == '-';
            members.add(characters[i]);
            members.add(isRange ? characters[i + 2] : characters[i]);
            i += isRange ? 2 : 0;
        }
        return Token.set(negated, members);
    }

    public boolean matches(String text) {
        if (!text.startsWith(start) || !text.endsWith(end)) {
            return false;
        }
        int at = start.length();
        int token = start.codePointCount(0, at);
        int starToken = -1; // the last NAME of the current name, and how far it reaches
        int starAt = 0;
        int deepToken = -1; // the last FOLDERS or EVERYTHING
        int deepAt = 0;
        while (true) {
            boolean fits = false;
            if (token == tokens.length) {
                if (at == text.length() || takesBelow && text.charAt(at) == '/') {
                    return true;
                }
            } else if (tokens[token].kind == Kind.NAME) {
                starToken = token++;
                starAt = at;
                fits = true;
            } else if (tokens[token].kind == Kind.FOLDERS || tokens[token].kind == Kind.EVERYTHING) {
                deepToken = token++;
                deepAt = at;
                starToken = -1;
                fits = true;
            } else if (at < text.length()) {
                int c = text.codePointAt(at);
                fits = tokens[token].takes(c);
                if (fits) {
                    token++;
                    at += Character.charCount(c);
                }
            }
            if (fits) {
                continue;
            }
            if (starToken >= 0 && starAt < text.length() && text.charAt(starAt) != '/') {
                starAt += Character.charCount(text.codePointAt(starAt));
                at = starAt;
                token = starToken + 1;
            } else if (deepToken >= 0 && deepAt < text.length()) {
                int slash = tokens[deepToken].kind == Kind.EVERYTHING ? deepAt : text.indexOf('/', deepAt);
                if (slash < 0) {
                    return false;
                }
                deepAt = slash
                        + (tokens[deepToken].kind == Kind.EVERYTHING
                                ? Character.charCount(text.codePointAt(slash))
                                : 1);
                starToken = -1;
                at = deepAt;
                token = deepToken + 1;
            } else {
                return false;
            }
        }
    }

    /** The common prefix of all texts that match. */
    public String start() {
        return start;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Glob that && that.glob.equals(glob) && that.syntax == syntax;
    }

    @Override
    public int hashCode() {
        return glob.hashCode();
    }

    /** The glob as it was written. */
    @Override
    public String toString() {
        return glob;
    }
}
