package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.matching.Plan;
import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.Split;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Fragments of a name, ignoring case: each must occur in the name or, where it is declared, in what it stands in, one
 * of them in the name. Behind a separator, as in {@code Berth.assign}, the last one must be in the name and those
 * before in what it stands in.
 *
 * <p>Points of the best fragment: 100 all of the name, case and all; 95 all of it; 70 its beginning; 50 the beginning
 * of one of its parts; 30 elsewhere. Loosely: 25 the first letters of its parts ({@code bp} for {@code BerthPlanner}),
 * 20 without what separates its parts ({@code tidegauge} for {@code tide_gauge_at}).
 */
final class FragmentNames implements NameMatcher {
    private static final int LONGEST_INITIALS = 5;

    private final byte[][] exact;
    private final byte[][] folded;
    private final boolean qualified;

    private FragmentNames(List<String> fragments, boolean qualified) {
        this.exact = fragments.stream()
                .map(fragment -> fragment.getBytes(StandardCharsets.UTF_8))
                .toArray(byte[][]::new);
        this.folded = fragments.stream().map(CaseFolding::foldedUtf8).toArray(byte[][]::new);
        this.qualified = qualified;
    }

    static FragmentNames of(String text, CaseMode caseMode) {
        List<String> fragments = new ArrayList<>();
        boolean separated = false;
        for (String word : Split.words(text)) {
            List<String> parts = SymbolName.parts(word);
            separated |= parts.size() > 1;
            fragments.addAll(parts);
        }
        if (fragments.isEmpty()) {
            fragments.add(text.strip());
        }
        return new FragmentNames(fragments, separated);
    }

    @Override
    public Plan plan() {
        List<Plan> plans = Arrays.stream(folded)
                .map(fragment -> Plan.holds(new String(fragment, StandardCharsets.UTF_8)))
                .toList();
        return qualified ? plans.getLast() : Plan.anyOf(plans);
    }

    @Override
    public String beginning() {
        return folded.length == 1 ? new String(folded[0], StandardCharsets.UTF_8) : "";
    }

    @Override
    public boolean hasLooseJudge() {
        return folded.length == 1 && folded[0].length >= 2;
    }

    /**
     * Whether by first letters or without separators: the first letter is that of the name, but for a sign before it.
     */
    @Override
    public List<String> looseBeginnings() {
        String first = folded[0][0] >= 0 ? String.valueOf((char) folded[0][0]) : "";
        return first.isEmpty() ? List.of("") : List.of("_" + first, first);
    }

    @Override
    public int few() {
        return folded[0].length <= LONGEST_INITIALS ? 3 : 1;
    }

    @Override
    public Judge judge() {
        return new Literal();
    }

    @Override
    public Judge looseJudge() {
        return new Loose();
    }

    private final class Literal implements Judge {
        private final List<String> missing = new ArrayList<>();

        @Override
        public int points(byte[] names, int start, int end) {
            missing.clear();
            int best = 0;
            for (int i = 0; i < folded.length; i++) {
                boolean mayBeInName = !qualified || i == folded.length - 1;
                int points = mayBeInName ? fragment(i, names, start, end) : 0;
                if (points == 0) {
                    if (qualified && mayBeInName) {
                        return NOT_MEANT;
                    }
                    missing.add(new String(folded[i], StandardCharsets.UTF_8));
                }
                best = Math.max(best, points);
            }
            return best;
        }

        @Override
        public List<String> missing() {
            return missing;
        }
    }

    private int fragment(int number, byte[] names, int start, int end) {
        byte[] sought = folded[number];
        int best = 0;
        for (int at = start; at + sought.length <= end; at++) {
            if (!startsAt(sought, names, at)) {
                continue;
            }
            if (at == start) {
                if (sought.length < end - start) {
                    return 70;
                }
                return Arrays.equals(exact[number], 0, exact[number].length, names, start, end) ? 100 : 95;
            }
            if (isPartStart(names, start, at)) {
                return 50;
            }
            best = 30;
        }
        return best;
    }

    private static boolean startsAt(byte[] sought, byte[] names, int at) {
        for (int i = 0; i < sought.length; i++) {
            if (fold(names[at + i]) != sought[i]) {
                return false;
            }
        }
        return true;
    }

    private static byte fold(byte c) {
        return c >= 'A' && c <= 'Z' ? (byte) (c | 0x20) : c;
    }

    /** Whether a part of the name begins at an offset: behind a sign, at a capital after a small letter, at a digit. */
    private static boolean isPartStart(byte[] names, int start, int at) {
        byte before = names[at - 1];
        byte c = names[at];
        return at == start
                || !isLetter(before) && isLetter(c)
                || isUpper(c)
                        && (!isUpper(before) || at + 1 < names.length && names[at + 1] >= 'a' && names[at + 1] <= 'z');
    }

    private static boolean isUpper(byte c) {
        return c >= 'A' && c <= 'Z';
    }

    private static boolean isLetter(byte c) {
        return c < 0 || c >= 'a' && c <= 'z' || isUpper(c) || c >= '0' && c <= '9';
    }

    private final class Loose implements Judge {
        @Override
        public int points(byte[] names, int start, int end) {
            byte[] sought = folded[0];
            int literal = fragment(0, names, start, end);
            return literal > 0
                    ? literal
                    : isInitials(sought, names, start, end)
                            ? 25
                            : isSquashed(sought, names, start, end) ? 20 : NOT_MEANT;
        }

        private boolean isInitials(byte[] sought, byte[] names, int start, int end) {
            int found = 0;
            for (int at = start; at < end; at++) {
                if (at == start ? isLetter(names[at]) : isPartStart(names, start, at)) {
                    if (found == sought.length || fold(names[at]) != sought[found]) {
                        return false;
                    }
                    found++;
                }
            }
            return found == sought.length;
        }

        private boolean isSquashed(byte[] sought, byte[] names, int start, int end) {
            int found = 0;
            for (int at = start; at < end && found < sought.length; at++) {
                if (fold(names[at]) == sought[found]) {
                    found++;
                } else if (isLetter(names[at])) {
                    return false;
                }
            }
            return found == sought.length;
        }
    }
}
