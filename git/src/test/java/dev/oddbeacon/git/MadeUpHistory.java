package dev.oddbeacon.git;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/**
 * Makes up repositories: edits, renames, reverts, branches that cross and merge, odd encodings and zones. The same ones
 * for a seed.
 */
final class MadeUpHistory {
    private static final String[] WORDS = {
        "tide", "berth", "assign", "gauge", "return", "if", "else", "for", "buffer", "mooring", "null", "0", "call",
        "stay", "depth", "}", "{", "", ""
    };
    private static final String[] PEOPLE = {
        "Ada Quill <ada@quillhaven.example>",
        "Bo Fender <bo@quillhaven.example>",
        "Cé Ümlaut <ce@quillhaven.example>",
        "ada q. <aquill@old.example>"
    };

    private final Random random;
    private final ByteArrayOutputStream stream = new ByteArrayOutputStream();
    private final List<String> branches = new ArrayList<>(List.of("main"));
    private final Map<String, TreeMap<String, List<String>>> files = new TreeMap<>(); // by branch
    private final Map<String, List<TreeMap<String, List<String>>>> past = new TreeMap<>();
    private int mark;
    private final Map<String, Integer> marks = new TreeMap<>(); // by branch
    private long now = 1_400_000_000;

    MadeUpHistory(long seed) {
        this.random = new Random(seed);
    }

    /** Builds a repository of so many commits. */
    static Path make(Path folder, long seed, int commits) throws IOException, InterruptedException {
        MadeUpHistory history = new MadeUpHistory(seed);
        history.files.put("main", new TreeMap<>());
        for (int i = 0; i < commits; i++) {
            history.step();
        }
        return fastImport(folder, history.stream.toByteArray());
    }

    static Path fastImport(Path folder, byte[] stream) throws IOException, InterruptedException {
        GitCommand.run(folder.getParent(), "init", "-q", "-b", "main", "--bare", folder.toString());
        GitCommand.feed(folder, stream, "fast-import", "--quiet", "--force");
        return folder;
    }

    private void step() {
        String branch = branches.get(random.nextInt(branches.size()));
        int kind = random.nextInt(12);
        if (kind == 0 && branches.size() < 4 && marks.containsKey(branch)) {
            String name = "side" + mark;
            branches.add(name);
            files.put(name, copy(files.get(branch)));
            marks.put(name, marks.get(branch));
            branch = name;
        } else if (kind == 1 && branches.size() > 1 && marks.size() > 1) {
            String other = branches.get(random.nextInt(branches.size()));
            if (!other.equals(branch) && !marks.get(other).equals(marks.get(branch))) {
                merge(branch, other);
                return;
            }
        }
        TreeMap<String, List<String>> tree = files.get(branch);
        TreeMap<String, List<String>> before = copy(tree);
        if (random.nextInt(30) == 0 && past.containsKey(branch)) {
            List<TreeMap<String, List<String>>> states = past.get(branch);
            tree = copy(states.get(random.nextInt(states.size()))); // all is as it was
            files.put(branch, tree);
        } else {
            for (int edits = 1 + random.nextInt(3); edits > 0; edits--) {
                edit(tree);
            }
        }
        past.computeIfAbsent(branch, _ -> new ArrayList<>()).add(before);
        commit(branch, before, tree, "");
    }

    private static TreeMap<String, List<String>> copy(TreeMap<String, List<String>> tree) {
        TreeMap<String, List<String>> copy = new TreeMap<>();
        tree.forEach((path, lines) -> copy.put(path, new ArrayList<>(lines)));
        return copy;
    }

    private void merge(String branch, String other) {
        TreeMap<String, List<String>> before = copy(files.get(branch));
        TreeMap<String, List<String>> tree = files.get(branch);
        files.get(other).forEach((path, lines) -> {
            if (!tree.containsKey(path) || random.nextBoolean()) {
                tree.put(path, new ArrayList<>(lines));
            }
        });
        if (random.nextInt(4) == 0) {
            edit(tree); // what no parent had
        }
        commit(branch, before, tree, "merge :" + marks.get(other) + "\n");
    }

    private void edit(TreeMap<String, List<String>> tree) {
        int kind = random.nextInt(10);
        List<String> paths = new ArrayList<>(tree.keySet());
        if (paths.size() < 3 || kind == 0) {
            tree.put(
                    folder() + "f" + random.nextInt(40) + (random.nextInt(9) == 0 ? ".dat" : ".txt"),
                    lines(random.nextInt(60)));
            return;
        }
        String path = paths.get(random.nextInt(paths.size()));
        if (kind == 1) {
            tree.remove(path);
        } else if (kind == 2 && tree.get(path).size() > 8) {
            List<String> lines = tree.remove(path);
            if (random.nextBoolean()) {
                change(lines);
            }
            tree.put(folder() + "renamed" + random.nextInt(1000) + path.substring(path.lastIndexOf('.')), lines);
        } else {
            for (int i = random.nextInt(3); i >= 0; i--) {
                change(tree.get(path));
            }
        }
    }

    private String folder() {
        return new String[] {"", "src/", "src/deep/", "docs/", "ü/"}[random.nextInt(5)];
    }

    private void change(List<String> lines) {
        int at = random.nextInt(lines.size() + 1);
        switch (random.nextInt(4)) {
            case 0 -> lines.addAll(at, lines(1 + random.nextInt(6)));
            case 1 ->
                lines.subList(at, Math.min(lines.size(), at + 1 + random.nextInt(5)))
                        .clear();
            case 2 -> {
                if (at < lines.size()) {
                    lines.set(at, line());
                }
            }
            default -> {
                int end = Math.min(lines.size(), at + random.nextInt(5));
                lines.addAll(
                        random.nextInt(lines.size() + 1),
                        List.copyOf(lines.subList(at, end))); // what stands there already
            }
        }
    }

    private List<String> lines(int count) {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            lines.add(line());
        }
        return lines;
    }

    private String line() {
        StringBuilder line = new StringBuilder("    ".repeat(random.nextInt(3)));
        for (int i = random.nextInt(4); i >= 0; i--) {
            line.append(WORDS[random.nextInt(WORDS.length)]).append(i > 0 ? " " : "");
        }
        return line + (random.nextInt(25) == 0 ? "\r" : "") + (random.nextInt(40) == 0 ? "é" : "");
    }

    private void commit(
            String branch, TreeMap<String, List<String>> before, TreeMap<String, List<String>> after, String merge) {
        mark++;
        now += random.nextInt(50_000) - 2_000; // clocks go wrong
        String zone = new String[] {"+0000", "+0530", "-0330", "+1200"}[random.nextInt(4)];
        String message = random.nextInt(20) == 0 ? "" : line() + "\n\n" + line() + "\n";
        boolean latin = random.nextInt(15) == 0;
        byte[] text = message.getBytes(latin ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8);
        print("commit refs/heads/" + branch + "\nmark :" + mark + "\nauthor " + PEOPLE[random.nextInt(PEOPLE.length)]
                + " " + (now - random.nextInt(90_000)) + " " + zone + "\ncommitter "
                + PEOPLE[random.nextInt(PEOPLE.length)] + " " + now + " " + zone + "\n"
                + (latin ? "encoding ISO-8859-1\n" : "") + "data " + text.length + "\n");
        stream.writeBytes(text);
        print("\n" + (marks.containsKey(branch) ? "from :" + marks.get(branch) + "\n" : "") + merge);
        before.keySet().stream().filter(path -> !after.containsKey(path)).forEach(path -> print("D " + path + "\n"));
        after.forEach((path, lines) -> {
            if (!lines.equals(before.get(path)) || !merge.isEmpty()) {
                String content = String.join("\n", lines)
                        + (lines.isEmpty() || lines.size() % 7 == 3 ? "" : "\n"); // some lack the last line feed
                byte[] bytes =
                        content.getBytes(path.contains("docs") ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8);
                if (path.endsWith(".dat") && bytes.length > 0) {
                    bytes[0] = 0;
                }
                print("M 100644 inline " + path + "\ndata " + bytes.length + "\n");
                stream.writeBytes(bytes);
                print("\n");
            }
        });
        marks.put(branch, mark);
    }

    private void print(String text) {
        stream.writeBytes(text.getBytes(StandardCharsets.UTF_8));
    }
}
