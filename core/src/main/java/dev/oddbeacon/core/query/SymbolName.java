package dev.oddbeacon.core.query;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

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

    /**
     * Reads a name.
     *
     * @throws InvalidQueryException if it is none
     */
    public static SymbolName of(String text) {
        List<String> words = Split.words(text);
        Optional<Kind> kind = words.size() == 2 ? Kind.of(words.getFirst()) : Optional.empty();
        if (words.size() > 2 || words.size() == 2 && kind.isEmpty()) {
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
        List<String> parts = words.isEmpty() ? new ArrayList<>() : parts(words.getLast());
        if (parts.isEmpty()) {
            throw new InvalidQueryException(
                    "\"" + text + "\" has no name in it. Write one, as in Berth or Berth.assign.");
        }
        String name = parts.removeLast();
        return new SymbolName(kind, List.copyOf(parts), name);
    }

    /** The names in a qualified one: {@code Berth.assign}, {@code Berth::assign}, {@code berth->assign}. */
    public static List<String> parts(String qualified) {
        List<String> parts = new ArrayList<>();
        int start = 0;
        for (int i = 0; i <= qualified.length(); i++) {
            int separator = i == qualified.length() ? 1 : separator(qualified, i);
            if (separator > 0) {
                if (i > start) {
                    parts.add(qualified.substring(start, i));
                }
                start = i + separator;
                i = start - 1;
            }
        }
        return parts;
    }

    /** The length of a separator at a position; 0 if there is none. */
    private static int separator(String text, int at) {
        return switch (text.charAt(at)) {
            case '.', '#', '/', '\\' -> 1;
            case ':' -> text.startsWith("::", at) ? 2 : 0;
            case '-' -> text.startsWith("->", at) ? 2 : 0;
            default -> 0;
        };
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
        List<String> parts = parts(container);
        if (parts.size() < containers.size()) {
            return false;
        }
        List<String> last = parts.subList(parts.size() - containers.size(), parts.size());
        for (int i = 0; i < last.size(); i++) {
            if (!fits(containers.get(i), last.get(i))) {
                return false;
            }
        }
        return true;
    }

    /** Whether a name is one that * and ? may stand in; small letters alone mean any case. */
    private static boolean fits(String wild, String name) {
        boolean minds = wild.codePoints().anyMatch(Character::isUpperCase);
        Glob glob = Glob.ofName((minds ? wild : wild.toLowerCase(Locale.ROOT)).replace("[", "[[]"));
        return glob.matches(minds ? name : name.toLowerCase(Locale.ROOT));
    }
}
