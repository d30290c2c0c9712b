package dev.oddbeacon.core.search;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextQuery;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;

/** What a search for lines means, written as plainly as possible: no index, no plan, no bytes. The oracle. */
final class NaiveSearch {
    private static final Pattern WORD_PART = Pattern.compile("[\\pL\\pM\\p{Nd}_]");

    private NaiveSearch() {}

    /** Numbers, from 1, of the lines of a text with a match. */
    static List<Integer> hitLines(String text, TextQuery query) {
        return query.reading() == Reading.PLAIN ? plain(text, query) : regex(text, query);
    }

    private static List<Integer> plain(String file, TextQuery query) {
        String wanted = query.text().replace("\r\n", "\n");
        if (wanted.length() > 1 && wanted.endsWith("\n")) {
            wanted = wanted.substring(0, wanted.length() - 1);
        }
        boolean ignore = query.caseMode() == CaseMode.IGNORE
                || query.caseMode() == CaseMode.AUTO && wanted.codePoints().noneMatch(Character::isUpperCase);
        int[] text = file.replace("\r\n", "\n").codePoints().toArray();
        int[] lineOf = lineOf(text);
        int[] needle = wanted.codePoints().toArray();
        TreeSet<Integer> lines = new TreeSet<>();
        for (int i = 0; i + needle.length <= text.length; ) {
            if (stands(text, i, needle, ignore) && (!query.word() || isWhole(text, i, i + needle.length))) {
                for (int k = i; k < i + needle.length; k++) {
                    lines.add(lineOf[k]);
                }
                i += needle.length;
            } else {
                i++;
            }
        }
        return new ArrayList<>(lines);
    }

    private static boolean stands(int[] text, int at, int[] needle, boolean ignore) {
        for (int i = 0; i < needle.length; i++) {
            int a = text[at + i];
            int b = needle[i];
            if (a != b && !(ignore && sameLetter(a, b))) {
                return false;
            }
        }
        return true;
    }

    private static boolean sameLetter(int a, int b) {
        boolean turkish = a == 0x130 || a == 0x131 || b == 0x130 || b == 0x131;
        return !turkish && Character.toLowerCase(Character.toUpperCase(a)) == Character.toLowerCase(Character.toUpperCase(b));
    }

    private static boolean isWhole(int[] text, int start, int end) {
        if (start == end) {
            return true;
        }
        boolean left = start > 0 && isWordPart(text[start - 1]) && isWordPart(text[start]);
        boolean right = end < text.length && isWordPart(text[end]) && isWordPart(text[end - 1]);
        return !left && !right;
    }

    private static boolean isWhole(String text, int start, int end) {
        int[] around = (start > 0 ? text.substring(text.offsetByCodePoints(start, -1), start) : "").codePoints().toArray();
        int[] match = text.substring(start, end).codePoints().toArray();
        int[] after = text.substring(end).codePoints().limit(1).toArray();
        int[] all = new int[around.length + match.length + after.length];
        System.arraycopy(around, 0, all, 0, around.length);
        System.arraycopy(match, 0, all, around.length, match.length);
        System.arraycopy(after, 0, all, around.length + match.length, after.length);
        return isWhole(all, around.length, around.length + match.length);
    }

    private static boolean isWordPart(int c) {
        return WORD_PART.matches(Character.toString(c));
    }

    private static int[] lineOf(int[] text) {
        int[] lines = new int[text.length];
        int line = 1;
        for (int i = 0; i < text.length; i++) {
            lines[i] = line;
            line += text[i] == '\n' ? 1 : 0;
        }
        return lines;
    }

    private static List<Integer> regex(String file, TextQuery query) {
        boolean ignore = query.caseMode() == CaseMode.IGNORE || query.caseMode() == CaseMode.AUTO && query.text().equals(query.text().toLowerCase());
        Pattern pattern = Pattern.compile(query.text(), ignore ? Pattern.CASE_INSENSITIVE : 0);
        String[] lines = file.replace("\r\n", "\n").split("\n", -1);
        int count = lines[lines.length - 1].isEmpty() ? lines.length - 1 : lines.length;
        List<Integer> hits = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            Matcher matcher = pattern.matcher(lines[i]);
            boolean hit = matcher.find();
            while (hit && query.word() && !isWhole(lines[i], matcher.start(), matcher.end())) {
                hit = matcher.start() + 1 <= lines[i].length() && matcher.find(lines[i].offsetByCodePoints(matcher.start(), 1));
            }
            if (hit) {
                hits.add(i + 1);
            }
        }
        return hits;
    }
}
