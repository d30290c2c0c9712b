package dev.oddbeacon.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The history of a demo repository, told from the first commit to the last. What its files hold at the end stands
 * in {@code files/}; the chronicle says when each came in and what its text was before.
 *
 * <pre>
 *   title TEXT                            what people call the repository
 *   labels A, B
 *   branches A, B                         to index; without it only main
 *   person ID NAME &lt;ADDRESS&gt;
 *   commit DATE PERSON MESSAGE            a commit on the current branch, with the changes that follow:
 *     add GLOB                              files come in, as they are at this point
 *     edit PATH                             followed by lines with - (before) and + (after); the + text must stand
 * there once
 *     rename OLD NEW
 *     delete PATH FILE                      FILE, beside the chronicle, is what it held
 *     write PATH FILE                       only on a branch that is never merged: PATH holds what FILE does
 *   branch NAME                           the next commits are on a new branch, from here
 *   on NAME                               they are on that branch again
 *   merge NAME DATE PERSON MESSAGE
 *   tag NAME
 * </pre>
 *
 * The files that a branch and main change between its start and its merge must not be the same.
 */
record Chronicle(
        String title, List<String> labels, List<String> branches, Map<String, Person> people, List<Step> steps) {
    record Person(String name, String address) {}

    sealed interface Step {}

    record Commit(OffsetDateTime date, String person, String message, List<Change> changes) implements Step {}

    record Branch(String name) implements Step {}

    record On(String branch) implements Step {}

    record Merge(String branch, OffsetDateTime date, String person, String message) implements Step {}

    record Tag(String name) implements Step {}

    sealed interface Change {}

    record Add(String glob) implements Change {}

    record Edit(String path, String before, String after) implements Change {}

    record Rename(String from, String to) implements Change {}

    record Delete(String path, String file) implements Change {}

    record Write(String path, String file) implements Change {}

    static Chronicle read(Path file) throws IOException {
        String title = "";
        List<String> labels = List.of();
        List<String> branches = List.of();
        Map<String, Person> people = new LinkedHashMap<>();
        List<Step> steps = new ArrayList<>();
        List<String> lines = Files.readAllLines(file);
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i);
            if (line.isBlank()) {
                continue;
            }
            String[] words = line.split(" ");
            switch (words[0]) {
                case "title" -> title = rest(line, 1);
                case "labels" -> labels = List.of(rest(line, 1).split(", "));
                case "branches" -> branches = List.of(rest(line, 1).split(", "));
                case "person" ->
                    people.put(
                            words[1],
                            new Person(rest(line, 2).replaceFirst(" <.*", ""), line.replaceFirst(".*<(.*)>", "$1")));
                case "commit" ->
                    steps.add(new Commit(OffsetDateTime.parse(words[1]), words[2], rest(line, 3), new ArrayList<>()));
                case "branch" -> steps.add(new Branch(words[1]));
                case "on" -> steps.add(new On(words[1]));
                case "merge" -> steps.add(new Merge(words[1], OffsetDateTime.parse(words[2]), words[3], rest(line, 4)));
                case "tag" -> steps.add(new Tag(words[1]));
                case "add" -> changes(steps).add(new Add(words[1]));
                case "rename" -> changes(steps).add(new Rename(words[1], words[2]));
                case "delete" -> changes(steps).add(new Delete(words[1], words[2]));
                case "write" -> changes(steps).add(new Write(words[1], words[2]));
                case "edit" -> {
                    int before = i + 1;
                    int after = endOf('-', lines, before);
                    int end = endOf('+', lines, after);
                    changes(steps).add(new Edit(words[1], text(lines, before, after), text(lines, after, end)));
                    i = end - 1;
                }
                default -> throw new IOException(file + ", line " + (i + 1) + ": what is \"" + words[0] + "\"?");
            }
        }
        return new Chronicle(title, labels, branches, people, steps);
    }

    private static List<Change> changes(List<Step> steps) {
        return ((Commit) steps.getLast()).changes;
    }

    private static int endOf(char mark, List<String> lines, int start) {
        int end = start;
        while (end < lines.size() && !lines.get(end).isEmpty() && lines.get(end).charAt(0) == mark) {
            end++;
        }
        return end;
    }

    private static String text(List<String> lines, int start, int end) {
        return String.join(
                "\n",
                lines.subList(start, end).stream()
                        .map(line -> line.substring(1))
                        .toList());
    }

    private static String rest(String line, int words) {
        return line.split(" ", words + 1)[words];
    }
}
