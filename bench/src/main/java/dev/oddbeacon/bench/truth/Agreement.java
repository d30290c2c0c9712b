package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.outline.Declaration;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/** Compares our analysis with that of a compiler, over many files. */
public final class Agreement {
    private static final int EXAMPLES = 200;

    private final Language language;
    private final Predicate<Kind> counted;
    private final Analyser analyser = new Analyser();
    private final StringBuilder examples = new StringBuilder();
    private int shown;
    private int files;
    private long bytes;
    private long both;
    private long onlyTheirs;
    private long onlyOurs;
    private long regionBytes;
    private long agreeing;

    /** @param uncounted kinds that the compiler is not asked for */
    public Agreement(Language language, Set<Kind> uncounted) {
        this.language = language;
        this.counted = kind -> !kind.isUse() && !uncounted.contains(kind);
    }

    /** Analyses a file and compares. */
    void add(Truth truth, byte[] text) {
        files++;
        bytes += text.length;
        Analysis analysis = analyser.analyse(language, text);
        Map<Truth.Declared, Integer> theirs = new HashMap<>();
        truth.declarations().forEach(declared -> theirs.merge(declared, 1, Integer::sum));
        int[] lines = lines(text);
        for (Declaration declaration : analysis.declarations()) {
            if (!counted.test(declaration.kind())) {
                continue;
            }
            var ours = new Truth.Declared(
                    new String(
                            text,
                            declaration.nameStart(),
                            declaration.nameEnd() - declaration.nameStart(),
                            StandardCharsets.UTF_8),
                    line(lines, declaration.nameStart()));
            Integer left = theirs.get(ours);
            if (left == null || left == 0) {
                onlyOurs++;
                example(
                        "only ours",
                        truth.path(),
                        ours.name() + " " + declaration.kind().label(),
                        ours.line());
            } else {
                both++;
                theirs.put(ours, left - 1);
            }
        }
        theirs.forEach((declared, left) -> {
            if (left > 0) {
                onlyTheirs += left;
                example("only theirs", truth.path(), declared.name(), declared.line());
            }
        });
        if (!truth.regions().isEmpty()) {
            compareRegions(truth, text, analysis, lines);
        }
    }

    private void compareRegions(Truth truth, byte[] text, Analysis analysis, int[] lines) {
        byte[] theirs = new byte[text.length];
        for (Truth.Span span : truth.regions()) {
            java.util.Arrays.fill(theirs, Math.min(span.start(), text.length), Math.min(span.end(), text.length), (byte)
                    span.region().ordinal());
        }
        byte[] ours = new byte[text.length];
        for (int i = 0; i < analysis.found().regions(); i++) {
            java.util.Arrays.fill(
                    ours, analysis.found().regionStart(i), analysis.found().regionEnd(i), (byte)
                            analysis.found().region(i).ordinal());
        }
        regionBytes += text.length;
        int different = -1;
        for (int i = 0; i < text.length; i++) {
            agreeing += ours[i] == theirs[i] ? 1 : 0;
            different = ours[i] != theirs[i] && different < 0 ? i : different;
        }
        if (different >= 0) {
            example(
                    "region",
                    truth.path(),
                    "ours " + ours[different] + ", theirs " + theirs[different],
                    line(lines, different));
        }
    }

    private void example(String what, String path, String detail, int line) {
        if (shown++ < EXAMPLES) {
            examples.append(what)
                    .append(": ")
                    .append(path)
                    .append(':')
                    .append(line)
                    .append(": ")
                    .append(detail)
                    .append('\n');
        }
    }

    private static int[] lines(byte[] text) {
        return java.util.stream.IntStream.range(0, text.length)
                .filter(i -> text[i] == '\n')
                .toArray();
    }

    private static int line(int[] feeds, int offset) {
        int found = java.util.Arrays.binarySearch(feeds, offset);
        return (found >= 0 ? found : -found - 1) + 1;
    }

    /** The share of our declarations that the compiler has as well. */
    public double precision() {
        return both + onlyOurs == 0 ? 1 : both / (double) (both + onlyOurs);
    }

    /** The share of the compiler's declarations that we have as well. */
    public double recall() {
        return both + onlyTheirs == 0 ? 1 : both / (double) (both + onlyTheirs);
    }

    /** The share of bytes that are in the same region. */
    public double regions() {
        return regionBytes == 0 ? 1 : agreeing / (double) regionBytes;
    }

    public int files() {
        return files;
    }

    /** One line of figures. */
    public String summary() {
        return String.format(
                Locale.ROOT,
                "%s: %,d files, %.1f MB, %,d declarations; precision %.4f, recall %.4f; regions %.5f of bytes",
                language.name(),
                files,
                bytes / 1e6,
                both + onlyTheirs,
                precision(),
                recall(),
                regions());
    }

    /** The first places where they differ. */
    public String examples() {
        return examples.toString();
    }
}
