package dev.oddbeacon.server.replacements;

import dev.oddbeacon.core.lines.FindInText;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.replace.Replacement;
import dev.oddbeacon.core.source.language.Language;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/** Finds a plain text or a regular expression. */
final class TextFinder implements MatchFinder {
    private final TextQuery query;
    private final Replacement template;
    private final BooleanSupplier stop;

    TextFinder(TextQuery query, Replacement template, BooleanSupplier stop) {
        this.query = query;
        this.template = template;
        this.stop = stop;
    }

    @Override
    public List<Found> matches(String text, Optional<Language> language) {
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
