package dev.oddbeacon.core.query;

import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The name of a symbol as people write it: {@code Berth}, {@code Berth.assign}, {@code get*}, {@code class Berth*}.
 *
 * @param kind what it must declare; empty if any
 * @param containers names of what it must stand in, the outermost first; they may have {@code *} and {@code ?}
 * @param name may have {@code *} and {@code ?}
 */
public record SymbolName(Optional<Kind> kind, List<String> containers, String name) {
    /** Matches any name. */
    public static final SymbolName ANY = new SymbolName(Optional.empty(), List.of(), "*");

    private static final Pattern SEPARATOR = Pattern.compile("::|->|[.#/\\\\]");

    /**
     * Reads a name.
     *
     * @throws InvalidQueryException if it is none
     */
    public static SymbolName of(String text) {
        String[] words = text.strip().split("\\s+");
        Optional<Kind> kind = words.length == 2 ? Kind.of(words[0]) : Optional.empty();
        if (words.length > 2 || words.length == 2 && kind.isEmpty()) {
            throw new InvalidQueryException("\"" + text
                    + "\" is no name of a symbol: write one word, as in Berth, Berth.assign or get*, and before it a kind if you like, as in class Berth*. Kinds are "
                    + String.join(
                            ", ",
                            Arrays.stream(Kind.values())
                                    .filter(each -> !each.isUse())
                                    .map(Kind::label)
                                    .toList())
                    + ".");
        }
        List<String> parts = new ArrayList<>(Arrays.stream(SEPARATOR.split(words[words.length - 1]))
                .filter(part -> !part.isEmpty())
                .toList());
        if (parts.isEmpty()) {
            throw new InvalidQueryException(
                    "\"" + text + "\" has no name in it. Write one, as in Berth or Berth.assign.");
        }
        String name = parts.removeLast();
        return new SymbolName(kind, List.copyOf(parts), name);
    }

    /** Whether the name has * or ? in it. */
    public boolean isWild() {
        return name.indexOf('*') >= 0 || name.indexOf('?') >= 0;
    }

    /** Whether what is declared is asked for more closely than by its name. */
    public boolean asksMore() {
        return kind.isPresent() || !containers.isEmpty();
    }

    /**
     * Whether a declaration of that kind, in that container, is asked for, if its name is.
     *
     * @param container qualified
     */
    public boolean takes(Kind of, String container) {
        if (kind.isPresent() && kind.get() != of) {
            return false;
        }
        if (containers.isEmpty()) {
            return true;
        }
        List<String> parts = Arrays.stream(SEPARATOR.split(container))
                .filter(part -> !part.isEmpty())
                .toList();
        if (parts.size() < containers.size()) {
            return false;
        }
        List<String> last = parts.subList(parts.size() - containers.size(), parts.size());
        for (int i = 0; i < last.size(); i++) {
            if (!wild(containers.get(i)).matcher(last.get(i)).matches()) {
                return false;
            }
        }
        return true;
    }

    private static Pattern wild(String glob) {
        StringBuilder regex = new StringBuilder();
        glob.codePoints()
                .forEach(c -> regex.append(c == '*' ? ".*" : c == '?' ? "." : Pattern.quote(Character.toString(c))));
        boolean minds = glob.codePoints().anyMatch(Character::isUpperCase);
        return Pattern.compile(regex.toString(), minds ? 0 : Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
    }
}
