package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.Spots;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * From a line of a file that holds texts of one language to the same text in the others, and to the code that shows it.
 *
 * <p>The files of the other languages are those whose paths differ in the name of the language alone: {@code
 * translations/de/tickets.json}, {@code messages_pt_BR.properties}, {@code locale/fr.yaml}.
 */
public final class Translations {
    private static final Set<String> LANGUAGES = Set.of(Locale.getISOLanguages());
    private static final int MOST_LANGUAGES = 200;
    private static final int LONGEST_TEXT = 1_000; // characters of a line that are told

    /** The text of one language. */
    public record Translated(String language, int file, int line, String text) {}

    /**
     * What a line holds.
     *
     * @param key of the text, with what it stands in: {@code zone.harbour}
     * @param languages the file's own one first, then by name
     * @param forms how code may name the key, the most certain first
     */
    public record Found(String key, List<Translated> languages, List<String> forms) {}

    /**
     * The code that names a key.
     *
     * @param form as it names it; the last that was looked for if none does
     */
    public record Uses(String form, LineAnswer lines) {}

    private final View view;
    private final int branchNumber;
    private final SnapshotReader snapshot;

    public Translations(View view, int branchNumber) {
        this.view = view;
        this.branchNumber = branchNumber;
        this.snapshot = view.snapshot(branchNumber);
    }

    /** A path without the name of a language that stands in it. */
    private record Pattern(String before, String language, String after) {
        /** The language of another path of this form; empty if it is of another form. */
        Optional<String> languageOf(String path) {
            return path.length() > before.length() + after.length() && path.startsWith(before) && path.endsWith(after)
                    ? Optional.of(path.substring(before.length(), path.length() - after.length()))
                            .filter(Translations::isLanguage)
                    : Optional.empty();
        }
    }

    /**
     * The text that a line of a file holds, or goes on with, in all languages.
     *
     * @param line from 1
     * @return empty if no key stands there, or no other language has it
     */
    public Optional<Found> at(int file, int line) {
        Optional<Spot> key = key(file, line);
        if (key.isEmpty()) {
            return Optional.empty();
        }
        String container = container(key.get());
        String name = key.get().name();
        String path = snapshot.path(file);
        List<Spot> sameKeys = new Spots(view, branchNumber)
                .of(name).stream()
                        .filter(spot -> spot.branchNumber() == branchNumber
                                && spot.file() != file
                                && spot.declared().kind() == Kind.KEY
                                && container(spot).equals(container))
                        .toList();
        for (Pattern pattern : patterns(path)) {
            Map<String, Translated> others = new TreeMap<>(); // the first of each language
            sameKeys.forEach(spot -> pattern.languageOf(snapshot.path(spot.file()))
                    .ifPresent(language -> others.putIfAbsent(language, translated(language, spot))));
            if (!others.isEmpty()) {
                List<Translated> languages = new ArrayList<>(List.of(translated(pattern.language, key.get())));
                others.values().stream().limit(MOST_LANGUAGES).forEach(languages::add);
                return Optional.of(new Found(
                        container.isEmpty() ? name : container + "." + name, languages, forms(path, container, name)));
            }
        }
        return Optional.empty();
    }

    /** Where code outside of translations names a key, what is close to the file first: as the first form that is found. */
    public static Uses uses(Found found, FileInHand near, Scope within, int most, SearchContext context) {
        Uses uses = null;
        for (String form : found.forms()) {
            Query text = new TextQuery(form, Reading.PLAIN, CaseMode.MATCH, true)
                    .understand(false)
                    .query();
            Query query = Query.and(List.of(
                    within.query(), text, new Query.Not(new FileCondition.HasTrait(Trait.TRANSLATION.label()))));
            LineAnswer lines = new LineSearch(
                            CompiledQuery.of(query, CaseMode.AUTO),
                            most,
                            0,
                            LineAnswer.Position.START,
                            true,
                            LineSearch.Order.RELEVANCE,
                            LineSearch.Show.LINES,
                            LineSearch.ALL,
                            Optional.of(near))
                    .run(context);
            uses = new Uses(form, lines);
            if (lines.hits() > 0) {
                break;
            }
        }
        return uses;
    }

    /** The innermost key whose text a line holds, or goes on with. */
    private Optional<Spot> key(int file, int line) {
        Spot last = null;
        for (Spot spot : FileOutline.spots(view, branchNumber, file, Integer.MAX_VALUE)) {
            if (spot.declared().kind() == Kind.KEY && lineOf(spot) <= line && line <= lastLineOf(spot)) {
                last = spot;
            }
        }
        return Optional.ofNullable(last);
    }

    private static int lineOf(Spot spot) {
        return spot.segment().lineNumber(spot.blob(), spot.declared().nameStart());
    }

    private static int lastLineOf(Spot spot) {
        return spot.segment()
                .lineNumber(spot.blob(), Math.max(0, spot.declared().end() - 1));
    }

    private static String container(Spot spot) {
        return spot.segment().container(spot.blob(), spot.declared());
    }

    private static Translated translated(String language, Spot spot) {
        var content = spot.segment().content();
        long start =
                Lines.start(content, spot.declared().nameStart(), spot.segment().start(spot.blob()));
        long end =
                Lines.end(content, spot.declared().nameStart(), spot.segment().end(spot.blob()));
        String text = Utf8.string(content, start, end).strip();
        return new Translated(
                language,
                spot.file(),
                lineOf(spot),
                text.length() > LONGEST_TEXT ? text.substring(0, LONGEST_TEXT) : text);
    }

    /** Where the name of a language may stand in a path, the likeliest place first: in the name of the file, then in folders. */
    private static List<Pattern> patterns(String path) {
        List<Pattern> patterns = new ArrayList<>();
        int name = path.lastIndexOf('/') + 1;
        int stemEnd = path.lastIndexOf('.') < name ? path.length() : path.lastIndexOf('.');
        for (int at = name; at < stemEnd; at++) { // from the longest: messages_pt_BR, then BR
            boolean begins = at == name || isBetween(path.charAt(at - 1));
            if (begins && isLanguage(path.substring(at, stemEnd))) {
                patterns.add(new Pattern(path.substring(0, at), path.substring(at, stemEnd), path.substring(stemEnd)));
            }
        }
        for (int end = name - 1; end > 0; ) {
            int start = path.lastIndexOf('/', end - 1) + 1;
            if (isLanguage(path.substring(start, end))) {
                patterns.add(new Pattern(path.substring(0, start), path.substring(start, end), path.substring(end)));
            }
            end = start - 1;
        }
        return patterns;
    }

    private static boolean isBetween(char c) {
        return c == '.' || c == '_' || c == '-';
    }

    /** {@code de}, {@code pt-BR}, {@code zh_Hans}, {@code de.lproj}. */
    private static boolean isLanguage(String text) {
        int end = text.length();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (isBetween(c)) {
                end = Math.min(end, i);
            } else if (!Character.isLetterOrDigit(c)) {
                return false;
            }
        }
        return text.length() <= end + 7 && LANGUAGES.contains(text.substring(0, end));
    }

    private static List<String> forms(String path, String container, String name) {
        String file = path.substring(path.lastIndexOf('/') + 1);
        String stem = file.contains(".") ? file.substring(0, file.indexOf('.')) : file;
        Set<String> forms = new LinkedHashSet<>();
        String whole = container.isEmpty() ? name : container + "." + name;
        forms.add(stem + "." + whole);
        forms.add(stem + ":" + whole);
        forms.add(whole);
        forms.add(name);
        return List.copyOf(forms);
    }
}
