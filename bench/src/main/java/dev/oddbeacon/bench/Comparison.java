package dev.oddbeacon.bench;

import dev.oddbeacon.api.LinesAnswer;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * Every hit of some searches, path and line number, against {@code LC_ALL=C.UTF-8 grep -rna}. What may differ, and is
 * counted apart: files that are skipped, and those whose bytes are not UTF-8 or hold a carriage return or a NUL, which
 * grep reads as bytes and we as text; and lines on which {@code \\b} stands beside a letter beyond ASCII, which is part
 * of a word to grep and not to RE2.
 */
final class Comparison {
    private static final List<String> TEXTS = List.of(
            "spin_lock_irqsave",
            "Copyright (C) 2010",
            "EXPORT_SYMBOL_GPL(",
            "obj->dev.parent",
            "#include <linux/kernel.h>",
            "return -ENOMEM;",
            "struct page *",
            "zqxjkv no such text",
            "mutex_unlock(&",
            "0xdeadbeef",
            "%s: %d\\n",
            "TODO",
            "a[i] = b[i]",
            "Signed-off-by",
            "goto out_free;",
            "@example.com",
            "if (!ptr)",
            "\tdefault:",
            "MODULE_LICENSE(\"GPL v2\")",
            "sched_clock_cpu");
    private static final List<String> REGEXES = List.of(
            "spin_(un)?lock_bh\\(",
            "irq.*save.*flags",
            "[0-9]{4}px",
            "^static int __init [a-z_]+_setup\\(",
            "TODO|FIXME",
            "\\bkfree_rcu\\b",
            "colou?r",
            "0x[0-9a-f]{16}ULL",
            "zq+xj+v",
            "return [a-z]+ \\? 0 : -E[A-Z]+;$");
    private static final int PAGE = 1_000;
    private static final int MOST_HITS = 100_000;

    private final Running service;
    private final Path source;
    private final Map<String, Boolean> odd = new HashMap<>();

    Comparison(Running service, Path source) {
        this.service = service;
        this.source = source;
    }

    /** @return whether all differences are explained */
    boolean run(Table table) throws IOException, InterruptedException {
        boolean equal = true;
        for (String text : TEXTS) {
            equal &= noted(text, "plain", table);
        }
        for (String regex : REGEXES) {
            equal &= noted(regex, "regex", table);
        }
        table.note("hits equal to grep's", equal ? "yes, but for the explained" : "NO");
        return equal;
    }

    /**
     * Texts drawn from the source, and regular expressions made of a third as many, in the three case modes. All 300
     * take hours, because grep does.
     */
    boolean drawn(int texts, Table table) throws IOException, InterruptedException {
        Words words = new Words(source);
        List<String> regexes =
                words.texts(texts / 3).stream().map(Comparison::regexOf).toList();
        Difference all = new Difference(0, 0, 0);
        int searches = 0;
        for (String caseMode : List.of("match", "ignore", "auto")) {
            for (String text : words.texts(texts)) {
                if (!isEverywhere(text, "plain", caseMode)) {
                    all = all.and(compare(text, "plain", caseMode));
                    searches++;
                }
            }
            for (String regex : regexes) {
                if (!isEverywhere(regex, "regex", caseMode)) {
                    all = all.and(compare(regex, "regex", caseMode));
                    searches++;
                }
            }
            System.out.println(searches + " drawn searches, case " + caseMode + " the last");
        }
        table.note(
                searches + " searches drawn from the source, in three case modes",
                "%,d hits, %d different, %d unexplained",
                all.hits,
                all.different,
                all.unexplained);
        return all.unexplained == 0;
    }

    /** Holding millions of hits against each other proves little and takes long. */
    private boolean isEverywhere(String text, String reading, String caseMode)
            throws IOException, InterruptedException {
        return service.search(Running.parameter("q", text) + "&reading=" + reading + "&case=" + caseMode
                                + "&only=counts&repo=" + Indexing.NAME)
                        .counts()
                        .hits()
                > MOST_HITS;
    }

    /** A drawn text with a number of any value, a run of letters of any length, and a character that may be any. */
    private static String regexOf(String text) {
        String escaped = text.replaceAll("[^A-Za-z0-9_ ]", "[$0]")
                .replace("[\\]", "\\\\")
                .replace("[^]", "\\^")
                .replace("[[]", "\\[")
                .replace("[]]", "\\]");
        return escaped.replaceFirst("[0-9]+", "[0-9]+")
                .replaceFirst("[a-z]{3,}$", "[a-z]+")
                .replaceFirst("(?<=[a-z])[a-z](?=[a-z])", ".");
    }

    /** The differences between our hits and those of grep. */
    private record Difference(long hits, long different, long unexplained) {
        Difference and(Difference other) {
            return new Difference(hits + other.hits, different + other.different, unexplained + other.unexplained);
        }
    }

    private boolean noted(String text, String reading, Table table) throws IOException, InterruptedException {
        Difference difference = compare(text, reading, "match");
        table.note(
                "`" + text + "`, " + reading,
                "%,d hits, %d different, %d unexplained",
                difference.hits,
                difference.different,
                difference.unexplained);
        return difference.unexplained == 0;
    }

    private Difference compare(String text, String reading, String caseMode) throws IOException, InterruptedException {
        boolean ignores = caseMode.equals("ignore")
                || caseMode.equals("auto") && text.chars().noneMatch(c -> c >= 'A' && c <= 'Z');
        Set<String> ours = ours(
                Running.parameter("q", text) + "&reading=" + reading + "&case=" + caseMode + "&repo=" + Indexing.NAME);
        Set<String> theirs = theirs((ignores ? "-i" : "") + (reading.equals("plain") ? "F" : "E"), text);
        Set<String> different = new TreeSet<>(ours);
        different.removeAll(theirs);
        Set<String> missing = new TreeSet<>(theirs);
        missing.removeAll(ours);
        different.addAll(missing);
        boolean readsLetters = ignores || text.contains("\\b");
        List<String> unexplained = different.stream()
                .filter(hit -> !isExplained(hit, readsLetters))
                .toList();
        unexplained.stream()
                .limit(3)
                .forEach(hit ->
                        System.out.println("    " + text + ": only " + (ours.contains(hit) ? "we: " : "grep: ") + hit));
        return new Difference(ours.size(), different.size(), unexplained.size());
    }

    private Set<String> ours(String parameters) throws IOException, InterruptedException {
        Set<String> hits = new HashSet<>();
        String cursor = "";
        do {
            LinesAnswer page = service.search(parameters + "&context=0&limit=" + PAGE + cursor);
            page.files()
                    .forEach(file -> file.excerpts()
                            .forEach(excerpt ->
                                    excerpt.lines().forEach(line -> hits.add(file.path() + ":" + line.number()))));
            cursor = page.next() == null ? null : "&" + Running.parameter("cursor", page.next());
        } while (cursor != null);
        return hits;
    }

    private Set<String> theirs(String flag, String text) throws IOException, InterruptedException {
        return Command.output(
                source,
                List.of(
                        "grep",
                        "-rna",
                        flag.startsWith("-") ? flag : "-" + flag,
                        "--exclude-dir=.git",
                        "-e",
                        text,
                        "."),
                1,
                output -> {
                    Set<String> hits = new HashSet<>();
                    BufferedReader reader =
                            new BufferedReader(new InputStreamReader(output, StandardCharsets.ISO_8859_1));
                    for (String line = reader.readLine(); line != null; line = reader.readLine()) {
                        int colon = line.indexOf(':');
                        int second = line.indexOf(':', colon + 1);
                        if (line.startsWith("./") && second > 0) {
                            hits.add(new String(
                                    line.substring(2, second).getBytes(StandardCharsets.ISO_8859_1),
                                    StandardCharsets.UTF_8));
                        }
                    }
                    return hits;
                });
    }

    /**
     * @param readsLetters whether a letter beyond ASCII may make a difference: as a part of a word, or by having a case
     */
    private boolean isExplained(String hit, boolean readsLetters) {
        int colon = hit.lastIndexOf(':');
        return isOdd(hit.substring(0, colon))
                || readsLetters
                        && line(hit.substring(0, colon), Integer.parseInt(hit.substring(colon + 1)))
                                .codePoints()
                                .anyMatch(c -> c > 0x7F);
    }

    private String line(String path, int number) {
        try (java.util.stream.Stream<String> lines = Files.lines(source.resolve(path))) {
            return lines.skip(number - 1).findFirst().orElse("");
        } catch (IOException e) {
            return "";
        }
    }

    /** Whether a file may differ: it is a link, binary, has a carriage return, or is not UTF-8. */
    private boolean isOdd(String path) {
        return odd.computeIfAbsent(path, name -> {
            Path file = source.resolve(name);
            try {
                if (!Files.isRegularFile(file, java.nio.file.LinkOption.NOFOLLOW_LINKS)) {
                    return true;
                }
                byte[] bytes = Files.readAllBytes(file);
                for (byte b : bytes) {
                    if (b == 0 || b == '\r') {
                        return true;
                    }
                }
                StandardCharsets.UTF_8.newDecoder().decode(java.nio.ByteBuffer.wrap(bytes));
                return false;
            } catch (java.nio.charset.CharacterCodingException e) {
                return true;
            } catch (IOException e) {
                return false;
            }
        });
    }
}
