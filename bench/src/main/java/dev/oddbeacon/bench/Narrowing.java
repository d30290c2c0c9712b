package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * Narrowed searches, the same 60 words by themselves and narrowed by type, trait, folder and an exclusion set of 30
 * patterns; files found key by key; and what an edited exclusion set would do.
 */
final class Narrowing {
    private static final int WORDS = 60;
    private static final int ROUNDS = 3;
    private static final int LONGEST_TYPED = 8;
    /** 30 patterns of the kinds that people write, for a tree of C. */
    private static final List<String> PATTERNS = List.of(
            "Documentation/",
            "tools/testing/",
            "*.dts",
            "*.dtsi",
            "*.rst",
            "*.yaml",
            "!MAINTAINERS.yaml",
            "arch/*/configs/",
            "*_defconfig",
            "**/include/uapi/",
            "drivers/gpu/drm/amd/include/",
            "*.S",
            "samples/",
            "scripts/kconfig/",
            "LICENSES/",
            ".*",
            "!.clang-format",
            "Kconfig*",
            "Makefile",
            "*.txt",
            "tests/",
            "selftests/",
            "*[Tt]est*.c",
            "sound/soc/codecs/wm*",
            "drivers/staging/",
            "*.json",
            "/usr/",
            "net/*/netfilter/",
            "fs/nls/nls_cp*.c",
            "*.po");

    private Narrowing() {}

    static void measure(Running service, Path source, Table table) throws IOException, InterruptedException {
        Words drawn = new Words(source);
        List<String> words = drawn.words(WORDS);
        service.put("api/v1/exclusion-sets/bench", "{\"patterns\":\"" + String.join("\\n", PATTERNS) + "\"}");
        double[] unnarrowed = {0};
        for (String narrowed : List.of("", "type=c", "notTrait=documentation", "under=drivers/net", "except=bench")) {
            List<String> searches = words.stream()
                    .map(word -> "api/v1/search/lines?limit=100&context=3&repo=" + Indexing.NAME + "&"
                            + Running.parameter("q", word) + (narrowed.isEmpty() ? "" : "&" + narrowed))
                    .toList();
            Figures millis = millis(service, searches);
            boolean isFirst = narrowed.isEmpty();
            unnarrowed[0] = isFirst ? millis.at(0.5) : unnarrowed[0];
            table.note(
                    isFirst
                            ? "a page for a word"
                            : "the same with "
                                    + (narrowed.equals("except=bench") ? "an exclusion set of 30 patterns" : narrowed),
                    "median %.1f ms, 95 %% under %.1f ms%s",
                    millis.at(0.5),
                    millis.at(0.95),
                    isFirst
                            ? ""
                            : String.format(java.util.Locale.ROOT, ": %.2f times", millis.at(0.5) / unnarrowed[0]));
        }
        files(service, words, table);
        preview(service, table);
        service.delete("api/v1/exclusion-sets/bench");
    }

    private static Figures millis(Running service, List<String> paths) throws IOException, InterruptedException {
        Figures millis = new Figures();
        for (int round = 0; round < ROUNDS; round++) {
            boolean isLast = round == ROUNDS - 1;
            for (String path : paths) {
                double taken = service.millisOf(path);
                if (isLast) {
                    millis.add(taken);
                }
            }
        }
        return millis;
    }

    /** Each word as it is typed, letter by letter. */
    private static void files(Running service, List<String> words, Table table)
            throws IOException, InterruptedException {
        List<String> keys = new ArrayList<>();
        for (String word : words) {
            for (int length = 1; length <= Math.min(word.length(), LONGEST_TYPED); length++) {
                keys.add("api/v1/search/files?limit=20&repo=" + Indexing.NAME + "&"
                        + Running.parameter("q", word.substring(0, length)));
            }
        }
        Figures millis = millis(service, keys);
        table.target(
                "files by each key of a word that is typed, 78,635 paths",
                "20 ms",
                millis.at(0.95) <= 20,
                "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                millis.at(0.5),
                millis.at(0.95),
                millis.at(1));
    }

    /** The set as it grows, pattern by pattern. */
    private static void preview(Running service, Table table) throws IOException, InterruptedException {
        Figures millis = new Figures();
        for (int round = 0; round < ROUNDS; round++) {
            for (int count = 1; count <= PATTERNS.size(); count++) {
                String patterns = PATTERNS.stream().limit(count).collect(Collectors.joining("\\n"));
                double taken = service.post(
                        "api/v1/exclusion-sets/preview?repo=" + Indexing.NAME, "{\"patterns\":\"" + patterns + "\"}");
                if (round == ROUNDS - 1) {
                    millis.add(taken);
                }
            }
        }
        table.target(
                "the effect of an exclusion set of 1 to 30 patterns while it is edited",
                "100 ms",
                millis.at(0.95) <= 100,
                "median %.1f ms, 95 %% under %.1f ms, longest %.0f ms",
                millis.at(0.5),
                millis.at(0.95),
                millis.at(1));
    }
}
