package dev.oddbeacon.bench;

import dev.oddbeacon.api.LinesAnswer;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Whether the best comes first: for names drawn from outlines of files, whether one of the first three files declares it;
 * for sentences of comments that stand once, whether the file is the first. The same in the order of paths, beside it.
 */
final class Ranking {
    private static final int NAMES = 200;
    private static final int SENTENCES = 100;
    private static final int SHORTEST = 30;
    private static final int FIRST = 3;

    private Ranking() {}

    static void measure(Running service, Path source, Table table) throws IOException, InterruptedException {
        Words drawn = new Words(source);
        int best = 0;
        int byPath = 0;
        Figures millis = new Figures();
        StringBuilder missed = new StringBuilder();
        List<String> names = names(service, source, drawn);
        for (String name : names) {
            byPath += isAmongFirst(service, name, "path") ? 1 : 0;
            boolean isFirst = isAmongFirst(service, name, "relevance");
            best += isFirst ? 1 : 0;
            missed.append(isFirst ? "" : (missed.isEmpty() ? "" : ", ") + name);
            millis.add(service.millis(Running.parameter("q", name) + "&order=relevance&limit=100&context=3"));
        }
        table.target(
                names.size() + " drawn names: the declaration is in one of the first three files",
                "95 %",
                best >= 0.95 * names.size(),
                "%.1f %%; by path %.1f %%%s",
                100.0 * best / names.size(),
                100.0 * byPath / names.size(),
                missed.isEmpty() ? "" : "; not of " + missed);
        table.note(
                "a page of 100 hits of these names",
                "median %.1f ms, 95 %% under %.1f ms",
                millis.at(0.5),
                millis.at(0.95));
        sentences(service, source, drawn, table);
    }

    private static void sentences(Running service, Path source, Words drawn, Table table)
            throws IOException, InterruptedException {
        int once = 0;
        int first = 0;
        for (Words.Sentence sentence : drawn.sentences(SENTENCES * 3, SHORTEST)) {
            LinesAnswer answer = service.search(
                    Running.parameter("q", sentence.text()) + "&order=relevance&counts=exact&limit=10&only=files");
            if (answer.counts().files() == 1 && once < SENTENCES) {
                once++;
                first += answer.files()
                                .getFirst()
                                .path()
                                .equals(source.relativize(sentence.file()).toString())
                        ? 1
                        : 0;
            }
        }
        table.target(
                once + " sentences of comments that stand once: the file is the first",
                "99 %",
                first >= 0.99 * once,
                "%d",
                first);
    }

    private static List<String> names(Running service, Path source, Words drawn)
            throws IOException, InterruptedException {
        List<String> names = new ArrayList<>();
        while (names.size() < NAMES) {
            List<String> declared = service
                    .outline(source.relativize(drawn.file()).toString())
                    .stream()
                    .filter(name -> name.matches("\\w{4,}"))
                    .toList();
            if (!declared.isEmpty()) {
                names.add(drawn.oneOf(declared));
            }
        }
        return names;
    }

    private static boolean isAmongFirst(Running service, String name, String order)
            throws IOException, InterruptedException {
        List<LinesAnswer.FileHits> files = service.search(Running.parameter("q", name) + "&only=files&order=" + order
                        + "&limit=" + FIRST + "&repo=" + Indexing.NAME)
                .files();
        for (LinesAnswer.FileHits file : files) {
            if (service.outline(file.path()).contains(name)) {
                return true;
            }
        }
        return false;
    }
}
