package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Language;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Makes shapes of code that somebody chose, to find where it is written again.
 *
 * @param same as it is written
 * @param alike whatever its variables are called, and whatever numbers and strings stand in it; empty if it has nothing
 * of that, or nothing else
 */
public record ShapeOfCode(Shape same, Optional<Shape> alike) {
    private static final int LONGEST_NAME = 30;

    /** @return empty if the code has no tokens */
    public static Optional<ShapeOfCode> of(String code, Language language) {
        Language inner = language.embedded().isEmpty() || code.stripLeading().startsWith("<")
                ? language
                : Language.named(language.embedded().values().iterator().next()).orElse(language);
        byte[] utf8 = code.getBytes(StandardCharsets.UTF_8);
        Tokens tokens = new Tokens(inner);
        tokens.read(utf8, ShapeFinder.regions(new Analyser().analyse(inner, utf8)), () -> false);
        if (tokens.size() == 0) {
            return Optional.empty();
        }
        Writer writer = new Writer(tokens);
        Shape alike = new Shape(writer.written(true), List.of());
        boolean says = writer.variables.size() > 0 && alike.mistake().isEmpty();
        return Optional.of(new ShapeOfCode(
                new Shape(writer.written(false), List.of()), says ? Optional.of(alike) : Optional.empty()));
    }

    /** Writes tokens in one line. */
    private static final class Writer {
        private final Tokens tokens;
        private final Map<String, String> variables = new HashMap<>(); // by what they stand for
        private final Set<String> taken = new HashSet<>(Set.of(Shape.ANY));

        Writer(Tokens tokens) {
            this.tokens = tokens;
        }

        String written(boolean isAlike) {
            StringBuilder text = new StringBuilder();
            for (int token = 0; token < tokens.size(); token++) {
                boolean isApart = token > 0
                        && (tokens.end(token - 1) < tokens.start(token)
                                || isAlike && varies(token) && endsWithWord(text)
                                || tokens.sign(token - 1) == '?' && tokens.kind(token) == Tokens.WORD);
                text.append(isApart ? " " : "").append(isAlike && varies(token) ? variable(token) : tokens.text(token));
            }
            return text.toString();
        }

        private static boolean endsWithWord(StringBuilder text) {
            return !text.isEmpty() && Character.isLetterOrDigit(text.charAt(text.length() - 1));
        }

        /** Whether a token may be another one in code that is alike: a variable, a number, a string. */
        private boolean varies(int token) {
            return switch (tokens.kind(token)) {
                case Tokens.NUMBER -> true;
                case Tokens.STRING -> !tokens.opens(token) && !tokens.closes(token);
                case Tokens.WORD ->
                    tokens.word(token).isName()
                            && tokens.sign(token + 1) != '('
                            && !isMember(tokens.sign(token - 1))
                            && !Character.isUpperCase(tokens.text(token).codePointAt(0));
                default -> false;
            };
        }

        private static boolean isMember(int sign) {
            return sign == '.' || sign == Syntax.code("?.") || sign == Syntax.code("::") || sign == Syntax.code("->");
        }

        private String variable(int token) {
            String text = tokens.text(token);
            return variables.computeIfAbsent(text, _ -> {
                boolean isName = tokens.kind(token) == Tokens.WORD
                        && text.length() <= LONGEST_NAME
                        && Shape.variables("?" + text).stream().anyMatch(found -> found.end() == text.length() + 1);
                String name = isName ? text : tokens.kind(token) == Tokens.NUMBER ? "number" : "text";
                String free = name;
                for (int i = 2; !taken.add(free); i++) {
                    free = name + i;
                }
                return "?" + free;
            });
        }
    }
}
