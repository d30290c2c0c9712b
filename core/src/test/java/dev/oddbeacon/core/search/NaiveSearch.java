package dev.oddbeacon.core.search;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
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

    private final String repository;
    private final String path;
    private final int[] text;

    NaiveSearch(String repository, String path, String file) {
        this.repository = repository;
        this.path = path;
        this.text = file.replace("\r\n", "\n").codePoints().toArray();
    }

    private record Match(int start, int end) {}

    private record How(CaseMode caseMode, boolean word) {
        How marked(Query.Mark mark) {
            return switch (mark) {
                case EXACTLY -> new How(CaseMode.MATCH, word);
                case ANYCASE -> new How(CaseMode.IGNORE, word);
                case WORD -> new How(caseMode, true);
            };
        }

        boolean ignoresCase(String literal) {
            return caseMode == CaseMode.IGNORE || caseMode == CaseMode.AUTO && literal.codePoints().noneMatch(Character::isUpperCase);
        }
    }

    /** Whether the file is found. */
    boolean holds(Query query, CaseMode caseMode) {
        return holds(query, new How(caseMode, false));
    }

    /** Numbers, from 1, of its lines that are hits. */
    List<Integer> hitLines(Query query, CaseMode caseMode) {
        TreeSet<Integer> lines = new TreeSet<>();
        for (Match match : shown(query, true, new How(caseMode, false))) {
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
            case Query.Everything _ -> true;
            case Query.Holds holding -> holds(holding.part(), how);
            case Query.Listed listed -> listed.files().contains(repository + "/" + path);
            case Query.Limit limit -> switch (limit.kind()) {
                case REPO -> limit.glob().equals(repository);
                case UNDER -> ("/" + path + "/").contains("/" + limit.glob() + "/");
                case BRANCH -> limit.glob().equals("main");
                case LABEL -> false;
                case TYPE -> path.endsWith(limit.glob().equals("m*") ? ".md" : ".java");
                case TRAIT -> limit.glob().equals("test") ? path.startsWith("test/") : path.endsWith(".md");
                case EXCEPT -> !isOdd(path);
            };
            default -> !matches(query, how).isEmpty();
        };
    }

    /** Matches of the clauses that are wanted and whose branch is satisfied. */
    private List<Match> shown(Query query, boolean wanted, How how) {
        List<Match> shown = new ArrayList<>();
        switch (query) {
            case Query.And _, Query.Or _ -> query.children().stream().filter(part -> holds(part, how) == wanted).forEach(part -> shown.addAll(shown(part, wanted, how)));
            case Query.Not not -> shown.addAll(shown(not.part(), !wanted, how));
            case Query.Marked marked -> shown.addAll(shown(marked.part(), wanted, how.marked(marked.mark())));
            case Query.Limit _, Query.Listed _, Query.Holds _, Query.When _, Query.Everything _ -> { }
            default -> shown.addAll(wanted ? matches(query, how) : List.of());
        }
        return shown;
    }

    private List<Match> matches(Query query, How how) {
        return switch (query) {
            case Query.Text clause -> literal(clause.text(), how);
            case Query.Pattern clause -> regex(clause.regex(), how.caseMode == CaseMode.IGNORE
                    || how.caseMode == CaseMode.AUTO && clause.regex().equals(clause.regex().toLowerCase()), how.word);
            case Query.Wildcard clause -> regex(clause.pattern().replaceAll("[^*?]+", "\\\\Q$0\\\\E").replace("*", "[\\pL\\pM\\p{Nd}_]*").replace("?", "[\\pL\\pM\\p{Nd}_]"),
                    how.ignoresCase(clause.pattern()), how.word);
            case Query.Like clause -> similar(clause.word());
            case Query.Near near -> near(near.words(), matches(near.left(), how), matches(near.right(), how));
            case Query.OnLine onLine -> onLine(matches(onLine.left(), how), matches(onLine.right(), how));
            case Query.Or or -> {
                List<Match> all = new ArrayList<>();
                or.parts().forEach(part -> all.addAll(matches(part, how)));
                yield all;
            }
            case Query.Marked marked -> matches(marked.part(), how.marked(marked.mark()));
            default -> throw new IllegalArgumentException(query.toString());
        };
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
        return !turkish && Character.toLowerCase(Character.toUpperCase(a)) == Character.toLowerCase(Character.toUpperCase(b));
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
        return 1 + (int) Arrays.stream(text, 0, Math.min(at, text.length)).filter(c -> c == '\n').count();
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
        Matcher matcher = Pattern.compile(regex, ignore ? Pattern.CASE_INSENSITIVE : 0).matcher(line);
        List<Match> found = new ArrayList<>();
        while (matcher.find()) {
            found.add(new Match(start + line.codePointCount(0, matcher.start()), start + line.codePointCount(0, matcher.end())));
        }
        return found;
    }

    /** Tries every stretch of the line, with another engine that can be held to one: from each place the shortest that is whole. */
    private List<Match> wholeMatches(String regex, boolean ignore, int start, int end) {
        String line = new String(text, start, end - start);
        int flags = java.util.regex.Pattern.UNIX_LINES | java.util.regex.Pattern.UNICODE_CASE | (ignore ? java.util.regex.Pattern.CASE_INSENSITIVE : 0);
        String wordCharacters = ignore ? regex.replace("\\w", "[\\w\u017F\u212A]") : regex; // RE2 folds the class, that engine does not
        java.util.regex.Matcher matcher = java.util.regex.Pattern.compile(wordCharacters, flags).matcher(line);
        matcher.useTransparentBounds(true).useAnchoringBounds(false);
        List<Match> found = new ArrayList<>();
        for (int from = start; from <= end; from++) {
            for (int until = from; until <= end; until++) {
                if (isWhole(from, until) && matcher.region(new String(text, start, from - start).length(), new String(text, start, until - start).length()).matches()) {
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
            int distance = distance(word.codePoints().map(NaiveSearch::folded).toArray(), letters, Arrays.stream(text, span[0], span[1]).map(NaiveSearch::folded).toArray(),
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
        int best = 1 + Math.min(distance(a, i - 1, b, k - 1), Math.min(distance(a, i - 1, b, k), distance(a, i, b, k - 1)));
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
                    long between = words.stream().filter(word -> word[0] >= first.end && word[1] <= second.start).count();
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
                boolean areOnOne = lineOf(a.start) == lineOf(b.start) && lineOf(a.end) == lineOf(a.start) && lineOf(b.end) == lineOf(b.start);
                if (areOnOne && (a.end <= b.start || b.end <= a.start)) {
                    found.add(a);
                    found.add(b);
                }
            }
        }
        return found;
    }
}
