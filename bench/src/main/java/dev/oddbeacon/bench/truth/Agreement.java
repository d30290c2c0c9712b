package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.outline.Declaration;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/** Compares our analysis with that of a compiler, over many files. */
public final class Agreement {
    private static final int EXAMPLES = 100;

    private final Language language;
    private final Predicate<Kind> counted;
    private final Analyser analyser = new Analyser();
    private final StringBuilder examples = new StringBuilder();
    private final Map<String, Integer> shown = new HashMap<>(); // by what is different
    private int files;
    private long bytes;
    private long both;
    private long onlyTheirs;
    private long onlyOurs;
    private long regionBytes;
    private long agreeing;
    private long ends;
    private long endsRight;
    private long containers;
    private long containersRight;

    private record Place(String name, int line) {}

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
        Map<Place, Deque<Truth.Declared>> theirs = new HashMap<>();
        truth.declarations()
                .forEach(declared -> theirs.computeIfAbsent(
                                new Place(declared.name(), declared.line()), _ -> new ArrayDeque<>())
                        .add(declared));
        int[] lines = lines(text);
        for (Declaration declaration : analysis.declarations()) {
            if (!counted.test(declaration.kind())) {
                continue;
            }
            Place ours = new Place(
                    text(text, declaration.nameStart(), declaration.nameEnd()), line(lines, declaration.nameStart()));
            Deque<Truth.Declared> left = theirs.getOrDefault(ours, new ArrayDeque<>());
            if (left.isEmpty() && truth.untold().get(ours.line)) {
                continue;
            }
            if (left.isEmpty()) {
                onlyOurs++;
                example(
                        "only ours",
                        truth.path(),
                        ours.name + " " + declaration.kind().label(),
                        ours.line);
            } else {
                both++;
                compareDetails(truth.path(), left.remove(), declaration, analysis, text, lines);
            }
        }
        theirs.values()
                .forEach(left -> left.forEach(declared -> {
                    onlyTheirs++;
                    example("only theirs", truth.path(), declared.name(), declared.line());
                }));
        if (!truth.regions().isEmpty()) {
            compareRegions(truth, text, analysis, lines);
        }
    }

    private void compareDetails(
            String path, Truth.Declared theirs, Declaration ours, Analysis analysis, byte[] text, int[] lines) {
        if (theirs.end().isPresent()) {
            ends++;
            int end = line(lines, Math.max(ours.nameStart(), ours.end() - 1));
            if (end == theirs.end().getAsInt()) {
                endsRight++;
            } else {
                example(
                        "end",
                        path,
                        theirs.name() + " ours " + end + ", theirs "
                                + theirs.end().getAsInt(),
                        theirs.line());
            }
        }
        if (theirs.container().isPresent()) {
            containers++;
            String container = container(analysis, ours, text);
            if (container.equals(theirs.container().get())) {
                containersRight++;
            } else {
                example(
                        "container",
                        path,
                        theirs.name() + " ours " + container + ", theirs "
                                + theirs.container().get(),
                        theirs.line());
            }
        }
    }

    private String container(Analysis analysis, Declaration of, byte[] text) {
        Deque<String> parts = new ArrayDeque<>();
        Declaration at = of;
        if (at.qualifierEnd() > at.qualifierStart()) {
            parts.push(text(text, at.qualifierStart(), at.qualifierEnd()));
        }
        while (at.parent() >= 0) {
            at = analysis.declarations().get(at.parent());
            parts.push(text(text, at.nameStart(), at.nameEnd()));
            if (at.qualifierEnd() > at.qualifierStart()) {
                parts.push(text(text, at.qualifierStart(), at.qualifierEnd()));
            }
        }
        return String.join(language.separator(), parts);
    }

    private static String text(byte[] text, int from, int to) {
        return new String(text, from, to - from, StandardCharsets.UTF_8);
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
        int differing = 0;
        for (int i = 0; i < text.length; i++) {
            agreeing += ours[i] == theirs[i] ? 1 : 0;
            differing += ours[i] != theirs[i] ? 1 : 0;
            different = ours[i] != theirs[i] && different < 0 ? i : different;
        }
        if (different >= 0) {
            example(
                    "region",
                    truth.path(),
                    "ours " + ours[different] + ", theirs " + theirs[different] + ", in all " + differing + " bytes",
                    line(lines, different));
        }
    }

    private void example(String what, String path, String detail, int line) {
        if (shown.merge(what, 1, Integer::sum) <= EXAMPLES) {
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

    /** The share of ends that are on the same line, of those that the compiler tells. */
    public double ends() {
        return ends == 0 ? 1 : endsRight / (double) ends;
    }

    /** The share of containers that are the same, of those that the compiler tells. */
    public double containers() {
        return containers == 0 ? 1 : containersRight / (double) containers;
    }

    public int files() {
        return files;
    }

    /** One line of figures. */
    public String summary() {
        return String.format(
                Locale.ROOT,
                "%s: %,d files, %.1f MB, %,d declarations; precision %.4f, recall %.4f; ends %.4f, containers %.4f; regions %.5f of bytes",
                language.name(),
                files,
                bytes / 1e6,
                both + onlyTheirs,
                precision(),
                recall(),
                ends(),
                containers(),
                regions());
    }

    /** The first places where they differ. */
    public String examples() {
        return examples.toString();
    }
}
