package dev.oddbeacon.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.LineAnswer.Position;
import dev.oddbeacon.core.snapshot.View;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Random little repositories times random searches, against {@link NaiveSearch}. */
class LineSearchPropertyTest {
    private static final String[] ATOMS = {"berth", "Berth", "TIDE", "tide", "k", "K", "s", "\u017F", "\u212A", "a", "b", "ab", "\u00DF", "\u1E9E",
            "\u03C3", "\u03C2", "\u03A3", "\u0434", "\u0414", "_", "1", " ", "  ", "\t", ".", "(", ")", "->", "\u20AC", "\u26F4", "\uD83D\uDEA2", "\uD801\uDC00", "\uD801\uDC28",
            "\n", "\n", "\r\n", "\r", "\u0000x", "\u0130", "i", "\u0131", "e\u0301"};
    private static final String[] REGEXES = {"^", "$", "^$", "berth|tide", "[ab]+", "(?i)TIDE.*k", "b.*h", "\\bab\\b", "a{2,3}", "\\w+->", "[^a]$", "\\s",
            "t(i|I)de", "(berth|tide)(a|b)?", "x*", "\\d+", "\\pL+_", "\u0434+", "[\u03C3\u03C2]", "a.?b", "(?:ab|a)(?:b|_)", "\\.\\(", "be[rx]th +", "k", "ab+_", "(?:ti)+de", "b{2}k|a+b", "[ab]{2,}k", "\\x{1F6A2}"};

    @TempDir
    Path folder;

    @Test
    void findsExactlyTheLinesThatANaiveScanFinds() throws Exception {
        long seed = Long.getLong("oddbeacon.seed", 20_260_101L);
        System.out.println("line search property test: seed " + seed);
        Random random = new Random(seed);
        try (SearchPool pool = new SearchPool(2)) {
            for (int round = 0; round < 40; round++) {
                Map<String, String> files = files(random);
                try (Library library = library(files, round)) {
                    for (int i = 0; i < 60; i++) {
                        TextQuery query = query(random, files);
                        assertThat(found(library.view(), query, pool, random)).as("seed %d, round %d, %s", seed, round, query)
                                .isEqualTo(expected(files, query));
                    }
                }
            }
        }
    }

    private Library library(Map<String, String> files, int round) throws Exception {
        Path own = java.nio.file.Files.createDirectory(folder.resolve("round" + round));
        Library library = new Library(own);
        Map<String, MemoryTree> trees = new TreeMap<>();
        files.forEach((path, text) -> trees.computeIfAbsent(path.substring(0, 1), name -> new MemoryTree())
                .file(path.substring(2), text.getBytes(StandardCharsets.UTF_8)));
        for (Map.Entry<String, MemoryTree> tree : trees.entrySet()) {
            library.add(tree.getKey(), tree.getValue());
        }
        return library;
    }

    private static Map<String, String> files(Random random) {
        Map<String, String> files = new LinkedHashMap<>();
        int count = 1 + random.nextInt(8);
        for (int i = 0; i < count; i++) {
            String path = "xy".charAt(random.nextInt(2)) + "/" + (random.nextBoolean() ? "dir/" : "") + "f" + i;
            String text = random.nextInt(6) == 0 && !files.isEmpty() ? files.values().iterator().next() : text(random);
            files.put(path, text);
        }
        return files;
    }

    private static String text(Random random) {
        int atoms = switch (random.nextInt(8)) {
            case 0 -> 0;
            case 1 -> 20_000; // several pieces, some lines longer than one
            default -> random.nextInt(200);
        };
        boolean longLines = random.nextInt(3) == 0;
        StringBuilder text = new StringBuilder(" ".repeat(atoms > 1_000 ? 8_000 : 0));
        for (int i = 0; i < atoms; i++) {
            String atom = ATOMS[random.nextInt(ATOMS.length)];
            boolean rare = atom.contains("\u0000") && text.length() < 8_000 || longLines && atom.contains("\n") && random.nextInt(500) > 0;
            text.append(rare ? " " : atom);
        }
        return text.toString();
    }

    private static TextQuery query(Random random, Map<String, String> files) {
        CaseMode caseMode = CaseMode.values()[random.nextInt(3)];
        boolean word = random.nextInt(3) == 0;
        if (random.nextInt(3) == 0) {
            String regex = REGEXES[random.nextInt(REGEXES.length)];
            return new TextQuery(regex, Reading.REGEX, caseMode, word && !regex.contains("|") && !regex.contains("?") && !regex.contains("*"));
        }
        String text = random.nextBoolean() ? excerpt(random, files) : "";
        while (text.isEmpty() || text.contains("\u0000")) {
            text = "";
            for (int i = random.nextInt(3); i >= 0; i--) {
                text += ATOMS[random.nextInt(ATOMS.length)];
            }
        }
        return new TextQuery(text, Reading.PLAIN, caseMode, word);
    }

    private static String excerpt(Random random, Map<String, String> files) {
        List<String> texts = new ArrayList<>(files.values());
        String text = texts.get(random.nextInt(texts.size()));
        if (text.isEmpty()) {
            return "";
        }
        int start = text.offsetByCodePoints(0, random.nextInt(text.codePointCount(0, text.length())));
        int rest = text.codePointCount(start, text.length());
        return text.substring(start, text.offsetByCodePoints(start, Math.min(rest, 1 + random.nextInt(9))));
    }

    private static Map<String, List<Integer>> expected(Map<String, String> files, TextQuery query) {
        Map<String, List<Integer>> expected = new TreeMap<>();
        files.forEach((path, text) -> {
            List<Integer> lines = NaiveSearch.hitLines(text, query);
            if (!lines.isEmpty()) {
                expected.put(path, lines);
            }
        });
        return expected;
    }

    /** All pages of a search, put together. */
    private static Map<String, List<Integer>> found(View view, TextQuery query, SearchPool pool, Random random) {
        Map<String, List<Integer>> found = new TreeMap<>();
        TextMatcher matcher = TextMatcher.of(query);
        Optional<Position> from = Optional.of(Position.START);
        int limit = random.nextBoolean() ? 1_000_000 : 1 + random.nextInt(2_000);
        int context = random.nextInt(3);
        while (from.isPresent()) {
            LineAnswer answer = new LineSearch(matcher, Scope.EVERYTHING, limit, context, from.get(), true, new Budget(Duration.ofMinutes(1)))
                    .run(view, pool);
            assertThat(answer.exact()).isTrue();
            for (LineAnswer.FileHits file : answer.page()) {
                String path = view.branch(file.rank()).repository() + "/" + view.snapshot(file.rank()).path(file.file());
                List<Integer> lines = found.computeIfAbsent(path, p -> new ArrayList<>());
                file.excerpts().forEach(excerpt -> excerpt.lines().stream().filter(LineAnswer.Line::isHit).forEach(line -> lines.add(line.number())));
            }
            from = answer.next();
            if (from.isEmpty()) {
                assertThat(answer.hits()).isEqualTo(found.values().stream().mapToInt(List::size).sum());
                assertThat(answer.files()).isEqualTo(found.size());
            }
        }
        return found;
    }
}
