package dev.oddbeacon.client;

import dev.oddbeacon.api.SecondLooks;
import dev.oddbeacon.api.SecondLooks.Look;
import java.util.ArrayList;
import java.util.List;

/** After a search that found nothing: changed searches that would have, as commands to copy. */
final class SecondLooksReport {
    private SecondLooksReport() {}

    static void print(SecondLooks looks) {
        if (looks.looks().isEmpty()) {
            return;
        }
        Terminal.note("What would have found something:");
        looks.looks().forEach(look -> Terminal.note("  " + (look.exact() ? "" : "at least ")
                + (look.hits() > 0 ? Amounts.of(look.hits(), "hit") : Amounts.of(look.files(), "file")) + " " + look.change() + "\n      " + command(look)));
    }

    static String command(Look look) {
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
        add(words, "--repo", look.scope().repo());
        add(words, "--label", look.scope().label());
        add(words, "--branch", look.scope().branch());
        add(words, "--under", look.scope().under());
        add(words, "--not-under", look.scope().notUnder());
        add(words, "--type", look.scope().type());
        add(words, "--trait", look.scope().trait());
        add(words, "--not-trait", look.scope().notTrait());
        add(words, "--except", look.scope().except());
        add(words, "--lift", look.scope().lift());
        add(words, "--changed", look.scope().changedAfter());
        add(words, "--changed-before", look.scope().changedBefore());
        add(words, "--region", look.scope().region());
        add(words, "--not-region", look.scope().notRegion());
        if (!look.scope().file().isEmpty()) {
            words.addAll(List.of("--files-from", "-"));
        }
        if (look.text().startsWith("-")) {
            words.add("--"); // no option follows
        }
        words.add(shellQuoted(look.text()));
        return String.join(" ", words);
    }

    private static void add(List<String> words, String option, List<String> values) {
        values.forEach(value -> words.addAll(List.of(option, shellQuoted(value))));
    }

    /** As a POSIX shell takes it for one word. */
    private static String shellQuoted(String text) {
        boolean isSafe = !text.isEmpty() && !text.startsWith("-") && text.chars().allMatch(c -> c < 0x80 && Character.isLetterOrDigit(c) || "_-./:@%+=,".indexOf(c) >= 0);
        return isSafe ? text : "'" + text.replace("'", "'\\''") + "'";
    }
}
