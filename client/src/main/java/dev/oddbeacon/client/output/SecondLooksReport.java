package dev.oddbeacon.client.output;

import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.api.SecondLooks;
import dev.oddbeacon.api.SecondLooks.Look;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** After a search that found nothing: changed searches that would have, as commands to copy. */
public final class SecondLooksReport {
    private SecondLooksReport() {}

    /** @param here of a scope, the parts that {@code --here} stands for, if it does for this search */
    public static void print(SecondLooks looks, Function<Map<String, List<String>>, Optional<Set<ScopePart>>> here) {
        if (looks.looks().isEmpty()) {
            return;
        }
        Terminal.note("What would have found something:");
        looks.looks()
                .forEach(look -> Terminal.note("  " + (look.exact() ? "" : "at least ")
                        + (look.hits() > 0 ? Amounts.of(look.hits(), "hit") : Amounts.of(look.files(), "file")) + " "
                        + look.change() + "\n      " + command(look, here.apply(look.scope()))));
    }

    /** @param here the parts of the scope that {@code --here} stands for; empty if it does not */
    static String command(Look look, Optional<Set<ScopePart>> here) {
        List<String> words = new ArrayList<>(List.of("oddbeacon", "lines"));
        if (!look.reading().equals("plain")) {
            words.add("--" + look.reading());
        }
        if (!look.caseMode().equals("auto")) {
            words.addAll(List.of("--case", look.caseMode()));
        }
        if (look.word()) {
            words.add("--word");
        }
        here.ifPresent(_ -> words.add("--here"));
        for (ScopePart part : ScopePart.values()) {
            if (here.isPresent() && here.get().contains(part)) {
                continue;
            }
            List<String> values = look.scope().getOrDefault(part.parameter(), List.of());
            if (part == ScopePart.FILE) {
                words.addAll(values.isEmpty() ? List.of() : List.of(part.option(), "-"));
            } else {
                values.forEach(value -> words.addAll(List.of(part.option(), shellQuoted(value))));
            }
        }
        if (look.text().startsWith("-")) {
            words.add("--"); // no option follows
        }
        words.add(shellQuoted(look.text()));
        return String.join(" ", words);
    }

    /** Quotes a text so that a POSIX shell reads it as one word. */
    public static String shellQuoted(String text) {
        boolean isSafe = !text.isEmpty()
                && !text.startsWith("-")
                && text.chars().allMatch(c -> c < 0x80 && Character.isLetterOrDigit(c) || "_-./:@%+=,".indexOf(c) >= 0);
        return isSafe ? text : "'" + text.replace("'", "'\\''") + "'";
    }
}
