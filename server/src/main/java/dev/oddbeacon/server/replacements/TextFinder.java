package dev.oddbeacon.server.replacements;

import dev.oddbeacon.core.lines.FindInText;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.replace.Replacement;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/** Finds the matches of a text, and what stands instead of each. */
final class TextFinder {
    private static final int MOST = 50_000; // of a file

    private final TextQuery query;
    private final Replacement template;
    private final BooleanSupplier stop;

    TextFinder(TextQuery query, Replacement template, BooleanSupplier stop) {
        this.query = query;
        this.template = template;
        this.stop = stop;
    }

    /** Whether a match counts, by where it begins. */
    interface Counts {
        boolean at(int line, int column);
    }

    Found.Finder counting(Counts counts) {
        return text -> {
            List<Found> all = matches(text.text());
            if (all.size() > MOST) {
                throw new StaysException("it has more than " + MOST + " matches");
            }
            return all.stream()
                    .filter(found -> counts.at(text.line(found.start()), text.column(found.start())))
                    .toList();
        };
    }

    List<Found> matches(String text) {
        return FindInText.of(query, text.getBytes(StandardCharsets.UTF_8), MOST + 1, stop).stream()
                .map(match -> new Found(
                        match.start(),
                        match.end(),
                        template.of(text, match.start(), match.end()),
                        warnings(text, match.start(), match.end())))
                .toList();
    }

    private List<String> warnings(String text, int start, int end) {
        List<String> warnings = new ArrayList<>();
        boolean begins = start > 0 && isOfWord(text.charAt(start - 1)) && isOfWord(text.charAt(start));
        boolean ends = end < text.length() && isOfWord(text.charAt(end)) && isOfWord(text.charAt(end - 1));
        if (begins || ends) {
            warnings.add("it is part of a longer word");
        }
        if (query.reading() == Reading.PLAIN
                && !text.regionMatches(start, query.text(), 0, end - start)
                && text.regionMatches(true, start, query.text(), 0, end - start)) {
            warnings.add("it is written in another case");
        }
        return warnings;
    }

    private static boolean isOfWord(char c) {
        return Character.isLetterOrDigit(c) || c == '_';
    }
}
