package dev.oddbeacon.core.query;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.LiteralScanner;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * A regular expression, matched line by line with RE2/J, in time linear in the text. Lines that lack the texts of
 * which every match must hold one are passed over without a look.
 *
 * <p>With whole words, a match counts if it is not part of a longer word. Of several matches at one place RE2/J
 * tells only one, which may be the wrong one ({@code fo|foo} in {@code foo}); so a second pattern asks for one that
 * has no word part on either side.
 */
final class RegexMatcher implements TextMatcher {
    private static final String NO_WORD_PART = "[^\\pL\\pM\\p{Nd}_]";

    /** Each scans the text once; with more of them, looking at every line is as fast. */
    private static final int MOST_SCANNERS = 8;

    private final Pattern pattern;
    private final Optional<Pattern> alone;
    private final Plan plan;
    private final List<LiteralScanner> alternatives; // empty if any line may match

    RegexMatcher(TextQuery query) {
        String text = query.text();
        RegexParser.Parsed parsed = RegexParser.parse(text);
        boolean ignoreCase = switch (query.caseMode()) {
            case IGNORE -> true;
            case MATCH -> false;
            case AUTO -> !parsed.hasCapital();
        };
        int flags = ignoreCase ? Pattern.CASE_INSENSITIVE : 0;
        try {
            pattern = Pattern.compile(text, flags);
            alone = query.word()
                    ? Optional.of(Pattern.compile("(?:^|" + NO_WORD_PART + ")(" + text + ")(?:$|" + NO_WORD_PART + ")", flags))
                    : Optional.empty();
        } catch (PatternSyntaxException e) {
            int position = e.getPattern() == null ? -1 : text.indexOf(e.getPattern());
            throw new InvalidQueryException("The regular expression is not valid: " + e.getDescription()
                    + (e.getPattern() == null ? "" : ", at " + e.getPattern()) + ".", Math.max(0, position));
        }
        plan = RegexPlan.of(parsed.regex());
        List<String> texts = plan.alternatives();
        alternatives = texts.size() > MOST_SCANNERS ? List.of() : texts.stream().map(literal -> LiteralScanner.of(literal, true)).toList();
    }

    @Override
    public Plan plan() {
        return plan;
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder() {
        return new RegexFinder();
    }

    private final class RegexFinder implements Finder {
        private final Matcher matcher = pattern.matcher("");
        private final Optional<Matcher> aloneMatcher = alone.map(other -> other.matcher(""));
        private final long[] nextOfAlternative = new long[alternatives.size()]; // where each stands next, at or after the current line
        private MemorySegment text = MemorySegment.NULL;
        private long to;
        private long lineStart;
        private long lineEnd;
        private String line = "";
        private boolean onLine; // whether line is the line at lineStart and index tells where to go on in it
        private int index;
        private int lastEnd; // of the match before on this line, -1 if none
        private int matchStart;
        private int matchEnd;
        private int measuredUnits; // of the line, and how many bytes they take
        private long measuredBytes;

        @Override
        public void begin(MemorySegment text, long low, long high, long from, long to) {
            this.text = text;
            this.to = to;
            this.lineEnd = from - 1;
            this.onLine = false;
            Arrays.fill(nextOfAlternative, -1);
        }

        @Override
        public boolean next() {
            while (onLine || toNextLine()) {
                if (index <= line.length() && findOnLine()) {
                    return true;
                }
                onLine = false;
            }
            return false;
        }

        private boolean toNextLine() {
            long position = lineEnd + 1;
            if (position >= to) {
                return false;
            }
            if (!alternatives.isEmpty()) {
                long found = nextAlternative(position);
                if (found >= to) {
                    lineEnd = to;
                    return false;
                }
                position = Lines.start(text, found, position);
            }
            lineStart = position;
            lineEnd = Lines.end(text, lineStart, to);
            line = Utf8.string(text, lineStart, lineEnd);
            matcher.reset(line);
            aloneMatcher.ifPresent(other -> other.reset(line));
            index = 0;
            lastEnd = -1;
            measuredUnits = 0;
            measuredBytes = 0;
            onLine = true;
            return true;
        }

        /** Where any of the alternatives stands next; {@code to} if none does. */
        private long nextAlternative(long position) {
            long next = to;
            for (int i = 0; i < nextOfAlternative.length; i++) {
                if (nextOfAlternative[i] < position) {
                    long found = alternatives.get(i).find(text, position, to);
                    nextOfAlternative[i] = found < 0 ? to : found;
                }
                next = Math.min(next, nextOfAlternative[i]);
            }
            return next;
        }

        private boolean findOnLine() {
            while (findFrom(index)) {
                boolean abutsAsEmpty = matchStart == matchEnd && matchStart == lastEnd;
                index = matchEnd > matchStart ? matchEnd : after(matchEnd);
                if (!abutsAsEmpty) {
                    lastEnd = matchEnd;
                    return true;
                }
                if (index > line.length()) {
                    return false;
                }
            }
            return false;
        }

        private boolean findFrom(int from) {
            if (aloneMatcher.isEmpty()) {
                return matcher.find(from) && take(matcher.start(), matcher.end());
            }
            Matcher other = aloneMatcher.get();
            boolean found = other.find(from > 0 ? line.offsetByCodePoints(from, -1) : 0)
                    && (other.start(1) >= from || from < line.length() && other.find(from) && other.start(1) >= from)
                    && take(other.start(1), other.end(1));
            for (int at = from; at <= line.length() && matcher.find(at); at = after(matcher.start())) {
                if (found && matcher.start() >= matchStart) {
                    break;
                }
                if (Words.isWhole(line, matcher.start(), matcher.end())) {
                    return take(matcher.start(), matcher.end());
                }
            }
            return found;
        }

        private boolean take(int from, int until) {
            matchStart = from;
            matchEnd = until;
            return true;
        }

        private int after(int position) {
            return position >= line.length() ? line.length() + 1 : line.offsetByCodePoints(position, 1);
        }

        @Override
        public void skipLine() {
            onLine = false;
        }

        @Override
        public long start() {
            return offset(matchStart);
        }

        @Override
        public long end() {
            return offset(matchEnd);
        }

        /** Measures from where it stopped the last time, or a line with many matches would be measured again for each. */
        private long offset(int unit) {
            if (unit < measuredUnits) {
                return lineStart + measuredBytes - Utf8.length(line, unit, measuredUnits);
            }
            measuredBytes += Utf8.length(line, measuredUnits, unit);
            measuredUnits = unit;
            return lineStart + measuredBytes;
        }
    }
}
