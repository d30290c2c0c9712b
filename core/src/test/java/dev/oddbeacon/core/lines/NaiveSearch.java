package dev.oddbeacon.core.lines;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.shape.RegionSource;
import dev.oddbeacon.core.shape.Shape;
import dev.oddbeacon.core.shape.ShapeFinder;
import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.outline.Declaration;
import dev.oddbeacon.core.text.Filled;
import dev.oddbeacon.core.text.Placeholders;
import dev.oddbeacon.core.text.Words;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * What a search for lines means, written as plainly as possible: no index, no plan, no bytes, no automaton. The oracle.
 * A file is a list of code points; a match is a start and an end in it.
 */
final class NaiveSearch {
    private static final Pattern WORD_PART = Pattern.compile("[\\pL\\pM\\p{Nd}_]");

    /** Which paths the exclusion set "odd" takes out. */
    static boolean isOdd(String path) {
        return path.matches(".*f[13579].*");
    }

    /** When the files of the repository y were changed last; those of x were in 1970. */
    static final Instant Y_CHANGED = Instant.parse("2026-06-13T00:00:00Z");

    private static final java.util.regex.Pattern NUMBER =
            java.util.regex.Pattern.compile("(0[xX][0-9a-fA-F][0-9a-fA-F_]*+|0[bB][01][01_]*+"
                    + "|[0-9]++(?:_[0-9]++)*+(?:[.][0-9]++(?:_[0-9]++)*+)?+(?![.][0-9])(?:[eE][-+]?[0-9]++)?+)");

    private static final java.util.regex.Pattern WORD = java.util.regex.Pattern.compile("[\\pL\\pM\\p{Nd}_]+");
    private static final java.util.regex.Pattern RUN = java.util.regex.Pattern.compile("[0-9.]+");

    private static final ThreadLocal<Analyser> ANALYSER = ThreadLocal.withInitial(Analyser::new);

    private final String repository;
    private final String path;
    private final int[] text;
    private final int bytes;
    // what the analysis of the whole text at once says; how it is stored and asked for piece by piece is what is tested
    private final Region[] regions; // by code point
    private final Set<Match> names = new HashSet<>();
    private final Map<Match, String> declarations =
            new HashMap<>(); // the kind, and the names of what it stands in before the name

    NaiveSearch(String repository, String path, String file) {
        this.repository = repository;
        this.path = path;
        this.bytes = file.getBytes(StandardCharsets.UTF_8).length;
        String lines = file.replace("\r\n", "\n");
        this.text = lines.codePoints().toArray();
        this.regions = new Region[text.length + 1];
        Arrays.fill(regions, Region.CODE);
        Language.ofType(FileTypes.ofPath(path))
                .ifPresent(language -> analyse(language, lines.getBytes(StandardCharsets.UTF_8)));
    }

    private void analyse(Language language, byte[] utf8) {
        Analysis analysis = ANALYSER.get().analyse(language, utf8);
        int[] codePoints = new int[utf8.length + 1]; // by byte
        for (int i = 0, count = 0; i <= utf8.length; i++) {
            count += i > 0 && (i == utf8.length || (utf8[i] & 0xC0) != 0x80) ? 1 : 0;
            codePoints[i] = count;
        }
        Found found = analysis.found();
        for (int i = 0; i < found.regions(); i++) {
            Arrays.fill(regions, codePoints[found.regionStart(i)], codePoints[found.regionEnd(i)], found.region(i));
        }
        for (int i = 0; i < found.names(); i++) {
            names.add(new Match(codePoints[found.nameStart(i)], codePoints[found.nameEnd(i)]));
        }
        for (Declaration one : analysis.declarations()) {
            if (!one.kind().isUse()) {
                String containers = "";
                for (int parent = one.parent();
                        parent >= 0;
                        parent = analysis.declarations().get(parent).parent()) {
                    Declaration container = analysis.declarations().get(parent);
                    containers = new String(
                                    utf8,
                                    container.nameStart(),
                                    container.nameEnd() - container.nameStart(),
                                    StandardCharsets.UTF_8)
                            + "." + containers;
                }
                declarations.put(
                        new Match(codePoints[one.nameStart()], codePoints[one.nameEnd()]),
                        one.kind().label() + " " + containers);
            }
        }
    }

    private record Match(int start, int end) {}

    private record How(CaseMode caseMode, boolean word, List<Set<Region>> regions) {
        How in(Set<Region> more) {
            List<Set<Region>> all = new ArrayList<>(regions);
            all.add(more);
            return new How(caseMode, word, all);
        }

        How marked(Query.Mark mark) {
            return switch (mark) {
                case EXACTLY -> new How(CaseMode.MATCH, word, regions);
                case ANYCASE -> new How(CaseMode.IGNORE, word, regions);
                case WORD -> new How(caseMode, true, regions);
            };
        }

        boolean ignoresCase(String literal) {
            return caseMode == CaseMode.IGNORE
                    || caseMode == CaseMode.AUTO && literal.codePoints().noneMatch(Character::isUpperCase);
        }
    }

    /** Whether the file is found. */
    boolean holds(Query query, CaseMode caseMode) {
        return holds(query, new How(caseMode, false, List.of()));
    }

    /** Numbers, from 1, of its lines that are hits. */
    List<Integer> hitLines(Query query, CaseMode caseMode) {
        TreeSet<Integer> lines = new TreeSet<>();
        for (Match match : shown(query, true, new How(caseMode, false, List.of()))) {
            for (int at = match.start; at <= Math.max(match.start, match.end - 1); at++) {
                lines.add(lineOf(at));
            }
        }
        return new ArrayList<>(lines);
    }

    private boolean holds(Query query, How how) {
        return switch (query) {
            case Query.And and -> and.parts().stream().allMatch(part -> holds(part, how));
            case Query.Or or -> or.parts().stream().anyMatch(part -> holds(part, how));
            case Query.Not not -> !holds(not.part(), how);
            case Query.Marked marked -> holds(marked.part(), how.marked(marked.mark()));
            case Query.InRegion inRegion -> holds(inRegion.part(), how.in(inRegion.regions()));
            case Query.Everything _ -> true;
            case Query.Holds holding -> holds(holding.part(), how);
            case TextClause clause -> !matches(clause, how).isEmpty();
            case FileCondition condition ->
                switch (condition) {
                    case FileCondition.Repository wanted ->
                        wanted.name().toString().replaceAll("[\\[\\]]", "").equals(repository);
                    case FileCondition.Under wanted -> ("/" + path + "/").contains("/" + wanted.path() + "/");
                    case FileCondition.OnBranch wanted ->
                        wanted.name().toString().equals("main");
                    case FileCondition.Label _ -> repository.equals("x");
                    case FileCondition.Type wanted ->
                        path.endsWith(wanted.type().toString().equals("m*") ? ".md" : ".java");
                    case FileCondition.HasTrait wanted ->
                        wanted.label().equals("test") ? path.startsWith("test/") : path.endsWith(".md");
                    case FileCondition.Except _ -> !isOdd(path);
                    case FileCondition.Listed listed -> listed.files().contains(repository + "/" + path);
                    case FileCondition.Changed changed -> isChanged(changed);
                    case FileCondition.Size size ->
                        bytes > size.over().orElse(-1) && bytes < size.under().orElse(Long.MAX_VALUE);
                };
            case CommitCondition _ -> throw new IllegalArgumentException(query.toString());
        };
    }

    private boolean isChanged(FileCondition.Changed changed) {
        LocalDate day = repository.equals("y") ? LocalDate.of(2026, 6, 13) : LocalDate.EPOCH;
        return !day.isBefore(changed.after().map(NaiveSearch::day).orElse(LocalDate.MIN))
                && day.isBefore(changed.before().map(NaiveSearch::day).orElse(LocalDate.MAX));
    }

    private static LocalDate day(String text) {
        return switch (text) {
            case "3d" -> LocalDate.of(2026, 6, 12);
            case "1y" -> LocalDate.of(2025, 6, 15);
            case "2026-03" -> LocalDate.of(2026, 3, 1);
            case "2027" -> LocalDate.of(2027, 1, 1);
            default -> throw new IllegalArgumentException(text);
        };
    }

    /** Matches of the clauses that are wanted and whose branch is satisfied. */
    private List<Match> shown(Query query, boolean wanted, How how) {
        List<Match> shown = new ArrayList<>();
        switch (query) {
            case Query.And _, Query.Or _ ->
                query.children().stream()
                        .filter(part -> holds(part, how) == wanted)
                        .forEach(part -> shown.addAll(shown(part, wanted, how)));
            case Query.Not not -> shown.addAll(shown(not.part(), !wanted, how));
            case Query.Marked marked -> shown.addAll(shown(marked.part(), wanted, how.marked(marked.mark())));
            case Query.InRegion inRegion -> shown.addAll(shown(inRegion.part(), wanted, how.in(inRegion.regions())));
            case FileCondition _, CommitCondition _, Query.Holds _, Query.Everything _ -> {}
            case TextClause clause -> shown.addAll(wanted ? matches(clause, how) : List.of());
        }
        return shown;
    }

    private List<Match> matches(Query query, How how) {
        List<Match> matches = matchesAnywhere(query, new How(how.caseMode, how.word, List.of()));
        return matches.stream()
                .filter(match -> how.regions.stream().allMatch(wanted -> isWithin(match, wanted)))
                .toList();
    }

    private boolean isWithin(Match match, Set<Region> wanted) {
        for (int at = match.start; at < Math.max(match.end, match.start + 1); at++) {
            if (!wanted.contains(regions[at])) {
                return false;
            }
        }
        return true;
    }

    private List<Match> matchesAnywhere(Query query, How how) {
        return switch (query) {
            case TextClause.Text clause -> literal(clause.text(), how);
            case TextClause.Pattern clause ->
                regex(
                        clause.regex(),
                        how.caseMode == CaseMode.IGNORE
                                || how.caseMode == CaseMode.AUTO
                                        && clause.regex().equals(clause.regex().toLowerCase(Locale.ROOT)),
                        how.word);
            case TextClause.Wildcard clause -> wildcard(clause.pattern(), how);
            case TextClause.Like clause -> similar(clause.word());
            case TextClause.Filled clause -> filled(clause.sentence(), how.ignoresCase(clause.sentence()));
            case TextClause.NumberIn clause -> numbers(clause.bounds());
            case TextClause.Near near -> near(near.words(), matches(near.left(), how), matches(near.right(), how));
            case TextClause.OnLine onLine -> onLine(matches(onLine.left(), how), matches(onLine.right(), how));
            case TextClause.Symbol symbol -> symbols(symbol, how);
            case TextClause.OfShape ofShape -> shaped(ofShape.shape(), how.caseMode == CaseMode.IGNORE);
            case Query.Or or -> {
                List<Match> all = new ArrayList<>();
                or.parts().forEach(part -> all.addAll(matches(part, how)));
                yield all;
            }
            case Query.Marked marked -> matches(marked.part(), how.marked(marked.mark()));
            case Query.InRegion inRegion -> matches(inRegion.part(), how.in(inRegion.regions()));
            default -> throw new IllegalArgumentException(query.toString());
        };
    }

    /** Any stretch of a line whose characters are the sentence's, and whose rooms are anything. */
    private List<Match> filled(String sentence, boolean ignoreCase) {
        List<Match> found = new ArrayList<>();
        List<String> needed = Filled.needed(sentence);
        int flags = java.util.regex.Pattern.DOTALL;
        String wanted = ignoreCase ? sentence.toLowerCase(Locale.ROOT) : sentence;
        int start = 0;
        for (String written : new String(text, 0, text.length).split("\n", -1)) {
            String line = ignoreCase ? written.toLowerCase(Locale.ROOT) : written;
            List<Placeholders.Element> elements = Placeholders.elements(line);
            boolean has =
                    needed.stream().anyMatch(part -> line.contains(ignoreCase ? part.toLowerCase(Locale.ROOT) : part));
            long letters = sentence.codePoints().filter(Words::isWordPart).count();
            boolean isThere = false;
            for (int a = 0; has && line.length() == written.length() && a < elements.size(); a++) {
                StringBuilder pattern = new StringBuilder();
                boolean room = false;
                long held = 0;
                for (int b = a; b < elements.size() && !isThere; b++) {
                    Placeholders.Element element = elements.get(b);
                    room |= element.isRoom();
                    held += !element.isRoom() && Words.isWordPart(line.charAt(element.start())) ? 1 : 0;
                    pattern.append(
                            element.isRoom()
                                    ? ".{1,80}"
                                    : java.util.regex.Pattern.quote(line.substring(element.start(), element.end())));
                    isThere = room
                            && held >= Math.max(Math.min(5, letters), letters / 3)
                            && java.util.regex.Pattern.compile(pattern.toString(), flags)
                                    .matcher(wanted)
                                    .matches();
                }
            }
            Optional<Filled.Match> match = new Filled(sentence, ignoreCase).in(written); // which of several is shown
            if (isThere != match.isPresent()) {
                throw new AssertionError(sentence + " in " + written + ": " + match);
            }
            if (isThere) {
                found.add(new Match(
                        start + written.codePointCount(0, match.get().start()),
                        start + written.codePointCount(0, match.get().end())));
            }
            start += written.codePointCount(0, written.length()) + 1;
        }
        return found;
    }

    private List<Match> numbers(Bounds bounds) {
        String all = new String(text, 0, text.length);
        List<Match> found = new ArrayList<>();
        for (int at = 0; at < all.length(); ) {
            boolean isFirst = at == 0 || !isWordPart(all.codePointBefore(at));
            java.util.regex.Matcher number = NUMBER.matcher(all).region(at, all.length());
            if (all.charAt(at) < '0' || all.charAt(at) > '9') {
                at++;
                continue;
            }
            int start = at;
            at = end(WORD, all, at);
            if (!isFirst) {
                continue;
            }
            String before = all.substring(0, start);
            boolean isFraction = before.matches("(?s).*(?<![.])[.]");
            if (isFraction && before.matches("(?s).*[\\pL\\pM\\p{Nd}_)\\]\\x{10000}-\\x{10FFFF}][.]")) {
                at = end(RUN, all, start);
                continue;
            }
            number.useTransparentBounds(true);
            if (!number.lookingAt()) {
                at = end(RUN, all, start);
                continue;
            }
            String digits = number.group(1).replace("_", "");
            at = end(WORD, all, number.end(1));
            if (isFraction && digits.matches("0[xXbB].*")
                    || isFraction && digits.contains(".")
                    || all.codePointCount(number.end(1), at) > 5) {
                if (isFraction && digits.contains(".")) {
                    at = end(RUN, all, start);
                }
                continue;
            }
            BigDecimal value = digits.matches("0[xX].*")
                    ? new BigDecimal(new BigInteger(digits.substring(2), 16))
                    : digits.matches("0[bB].*")
                            ? new BigDecimal(new BigInteger(digits.substring(2), 2))
                            : new BigDecimal((isFraction ? "0." : "") + digits);
            int sign = isFraction ? start - 1 : start;
            boolean isNegative = sign > 0
                    && all.charAt(sign - 1) == '-'
                    && (sign == 1 || !String.valueOf(all.charAt(sign - 2)).matches("[-)\\]\\pL\\pM\\p{Nd}_\\p{Cs}]"));
            value = isNegative ? value.negate() : value;
            if (bounds.from().orElse(value).compareTo(value) <= 0
                    && bounds.to().orElse(value).compareTo(value) >= 0) {
                int from = isNegative ? sign - 1 : sign;
                found.add(new Match(all.codePointCount(0, from), all.codePointCount(0, number.end(1))));
            }
        }
        return found;
    }

    private static int end(java.util.regex.Pattern of, String all, int at) {
        java.util.regex.Matcher matcher = of.matcher(all).region(at, all.length());
        return matcher.lookingAt() ? matcher.end() : at;
    }

    /** Shapes are told by the same finder: what is held against each other is all around it. */
    private List<Match> shaped(Shape shape, boolean ignoresCase) {
        Optional<Language> language = Language.ofType(FileTypes.ofPath(path));
        if (language.isEmpty()) {
            return List.of();
        }
        String lines = new String(text, 0, text.length);
        byte[] utf8 = lines.getBytes(StandardCharsets.UTF_8);
        RegionSource regionsOfBytes = new RegionSource() {
            private int end;

            @Override
            public Region region(int offset) {
                end = offset + 1;
                return regions[codePoints(utf8, offset + 1) - 1];
            }

            @Override
            public int end() {
                return end;
            }
        };
        return new ShapeFinder(shape.byLanguage(ignoresCase), () -> false)
                .find(utf8, language.get(), regionsOfBytes).stream()
                        .map(match -> new Match(codePoints(utf8, match.start()), codePoints(utf8, match.end())))
                        .toList();
    }

    private static int codePoints(byte[] utf8, int offset) {
        int count = 0;
        for (int i = 0; i < offset; i++) {
            count += (utf8[i] & 0xC0) != 0x80 ? 1 : 0;
        }
        return count;
    }

    private List<Match> wildcard(String pattern, How how) {
        return regex(
                pattern.replaceAll("[^*?]+", "\\\\Q$0\\\\E")
                        .replace("*", "[\\pL\\pM\\p{Nd}_]*")
                        .replace("?", "[\\pL\\pM\\p{Nd}_]"),
                how.ignoresCase(pattern),
                how.word);
    }

    /** The forms that random queries have: name, glob*, kind name, Container.name. */
    private List<Match> symbols(TextClause.Symbol symbol, How how) {
        String kind = symbol.name().contains(" ")
                ? symbol.name().substring(0, symbol.name().indexOf(' '))
                : "";
        String qualified = symbol.name().substring(kind.isEmpty() ? 0 : kind.length() + 1);
        String container = qualified.contains(".") ? qualified.substring(0, qualified.indexOf('.')) : "";
        String name = qualified.substring(container.isEmpty() ? 0 : container.length() + 1);
        How whole = new How(how.caseMode, true, List.of());
        List<Match> spelt = name.contains("*") ? wildcard(name, whole) : literal(name, whole);
        return spelt.stream()
                .filter(match -> {
                    String declared = declarations.get(match);
                    if (declared != null) {
                        return symbol.role() != SymbolRole.USE
                                && declared.startsWith(kind.isEmpty() ? "" : kind + " ")
                                && (container.isEmpty() || (" " + declared).matches(".*[ .]" + container + "\\.$"));
                    }
                    return symbol.role() != SymbolRole.DECLARATION
                            && names.contains(match)
                            && regions[match.start] == Region.CODE;
                })
                .toList();
    }

    private List<Match> literal(String wanted, How how) {
        boolean ignore = how.ignoresCase(wanted);
        int[] needle = wanted.codePoints().toArray();
        List<Match> found = new ArrayList<>();
        for (int i = 0; i + needle.length <= text.length; ) {
            if (stands(i, needle, ignore) && (!how.word || isWhole(i, i + needle.length))) {
                found.add(new Match(i, i + needle.length));
                i += needle.length;
            } else {
                i++;
            }
        }
        return found;
    }

    private boolean stands(int at, int[] needle, boolean ignore) {
        for (int i = 0; i < needle.length; i++) {
            if (text[at + i] != needle[i] && !(ignore && sameLetter(text[at + i], needle[i]))) {
                return false;
            }
        }
        return true;
    }

    private static boolean sameLetter(int a, int b) {
        boolean turkish = a == 0x130 || a == 0x131 || b == 0x130 || b == 0x131;
        return !turkish
                && Character.toLowerCase(Character.toUpperCase(a)) == Character.toLowerCase(Character.toUpperCase(b));
    }

    private boolean isWhole(int start, int end) {
        if (start == end) {
            return true;
        }
        boolean left = start > 0 && isWordPart(text[start - 1]) && isWordPart(text[start]);
        boolean right = end < text.length && isWordPart(text[end]) && isWordPart(text[end - 1]);
        return !left && !right;
    }

    private static boolean isWordPart(int c) {
        return WORD_PART.matches(Character.toString(c));
    }

    private int lineOf(int at) {
        return 1
                + (int) Arrays.stream(text, 0, Math.min(at, text.length))
                        .filter(c -> c == '\n')
                        .count();
    }

    private List<Match> regex(String regex, boolean ignore, boolean word) {
        List<Match> found = new ArrayList<>();
        for (int start = 0; start < text.length; ) {
            int end = start;
            while (end < text.length && text[end] != '\n') {
                end++;
            }
            found.addAll(word ? wholeMatches(regex, ignore, start, end) : matchesOnLine(regex, ignore, start, end));
            start = end + 1;
        }
        return found;
    }

    private List<Match> matchesOnLine(String regex, boolean ignore, int start, int end) {
        String line = new String(text, start, end - start);
        Matcher matcher =
                Pattern.compile(regex, ignore ? Pattern.CASE_INSENSITIVE : 0).matcher(line);
        List<Match> found = new ArrayList<>();
        while (matcher.find()) {
            found.add(new Match(
                    start + line.codePointCount(0, matcher.start()), start + line.codePointCount(0, matcher.end())));
        }
        return found;
    }

    /**
     * Tries every stretch of the line, with another engine that can be held to one: from each place the shortest that
     * is whole.
     */
    private List<Match> wholeMatches(String regex, boolean ignore, int start, int end) {
        String line = new String(text, start, end - start);
        int flags = java.util.regex.Pattern.UNIX_LINES
                | java.util.regex.Pattern.UNICODE_CASE
                | (ignore ? java.util.regex.Pattern.CASE_INSENSITIVE : 0);
        String wordCharacters =
                ignore ? regex.replace("\\w", "[\\w\u017F\u212A]") : regex; // RE2 folds the class, that engine does not
        java.util.regex.Matcher matcher =
                java.util.regex.Pattern.compile(wordCharacters, flags).matcher(line);
        matcher.useTransparentBounds(true).useAnchoringBounds(false);
        List<Match> found = new ArrayList<>();
        for (int from = start; from <= end; from++) {
            for (int until = from; until <= end; until++) {
                if (isWhole(from, until)
                        && matcher.region(
                                        new String(text, start, from - start).length(),
                                        new String(text, start, until - start).length())
                                .matches()) {
                    found.add(new Match(from, until));
                    from = Math.max(from, until - 1);
                    break;
                }
            }
        }
        return found;
    }

    private List<Match> similar(String word) {
        List<Match> found = new ArrayList<>();
        for (int[] span : words()) {
            int letters = word.codePointCount(0, word.length());
            int distance = distance(
                    word.codePoints().map(NaiveSearch::folded).toArray(),
                    letters,
                    Arrays.stream(text, span[0], span[1])
                            .map(NaiveSearch::folded)
                            .toArray(),
                    span[1] - span[0]);
            if (distance <= (letters <= 5 ? 1 : 2)) {
                found.add(new Match(span[0], span[1]));
            }
        }
        return found;
    }

    private static int folded(int c) {
        return c == 0x130 || c == 0x131 ? c : Character.toLowerCase(Character.toUpperCase(c));
    }

    /** Straight from the definition: the last letters are equal, or one of four edits made them so. */
    private static int distance(int[] a, int i, int[] b, int k) {
        if (Math.abs(i - k) > 2) {
            return 3;
        }
        if (i == 0 || k == 0) {
            return i + k;
        }
        if (a[i - 1] == b[k - 1]) {
            return distance(a, i - 1, b, k - 1);
        }
        int best = 1
                + Math.min(distance(a, i - 1, b, k - 1), Math.min(distance(a, i - 1, b, k), distance(a, i, b, k - 1)));
        boolean swapped = i > 1 && k > 1 && a[i - 1] == b[k - 2] && a[i - 2] == b[k - 1];
        return swapped ? Math.min(best, 1 + distance(a, i - 2, b, k - 2)) : best;
    }

    private List<int[]> words() {
        List<int[]> words = new ArrayList<>();
        for (int i = 0; i < text.length; i++) {
            if (isWordPart(text[i])) {
                int start = i;
                while (i < text.length && isWordPart(text[i])) {
                    i++;
                }
                words.add(new int[] {start, i});
            }
        }
        return words;
    }

    private List<Match> near(int most, List<Match> left, List<Match> right) {
        List<int[]> words = words();
        List<Match> found = new ArrayList<>();
        for (Match a : left) {
            for (Match b : right) {
                Match first = a.start < b.start || a.start == b.start && a.end <= b.start ? a : b;
                Match second = first == a ? b : a;
                if (first.end <= second.start) {
                    long between = words.stream()
                            .filter(word -> word[0] >= first.end && word[1] <= second.start)
                            .count();
                    if (between <= most) {
                        found.add(a);
                        found.add(b);
                    }
                }
            }
        }
        return found;
    }

    private List<Match> onLine(List<Match> left, List<Match> right) {
        List<Match> found = new ArrayList<>();
        for (Match a : left) {
            for (Match b : right) {
                boolean areOnOne = lineOf(a.start) == lineOf(b.start)
                        && lineOf(a.end) == lineOf(a.start)
                        && lineOf(b.end) == lineOf(b.start);
                if (areOnOne && (a.end <= b.start || b.end <= a.start)) {
                    found.add(a);
                    found.add(b);
                }
            }
        }
        return found;
    }
}
