package dev.oddbeacon.client;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Somebody's editor, and how it is told a line. Editors have four ways of it; a command with {@code {file}},
 * {@code {line}} or {@code {column}} in it says its own.
 *
 * @param words of the command
 */
record Editor(List<String> words) {
    private static final Set<String> PLUS = Set.of("vi", "vim", "nvim", "view", "gvim", "ex", "nano", "emacs", "emacsclient", "joe", "jed", "ne", "mg", "mcedit", "kak", "gedit", "vis");
    private static final Set<String> COLONS = Set.of("hx", "helix", "subl", "zed", "micro");
    private static final Set<String> GOTO = Set.of("code", "code-insiders", "codium", "vscodium");
    private static final Set<String> NAMED = Set.of("idea", "pycharm", "goland", "clion", "webstorm", "rubymine");
    private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|'([^']*)'|(\\S+)");

    /** A local file to open. @param line from 1 @param column from 1 */
    record At(Path file, int line, int column) {}

    static Editor of(String command) {
        List<String> words = new ArrayList<>();
        for (Matcher matcher = WORD.matcher(command); matcher.find(); ) {
            words.add(matcher.group(1) != null ? matcher.group(1) : matcher.group(2) != null ? matcher.group(2) : matcher.group(3));
        }
        return new Editor(List.copyOf(words));
    }

    /** The commands that open files: one for all of them, or, where the command says itself where a file stands, one for each. */
    List<List<String>> commands(List<At> files) {
        if (words.stream().anyMatch(word -> word.contains("{file}"))) {
            return files.stream().map(at -> words.stream().map(word -> word.replace("{file}", at.file.toString()).replace("{line}", String.valueOf(at.line))
                    .replace("{column}", String.valueOf(at.column))).toList()).toList();
        }
        String program = Path.of(words.getFirst()).getFileName().toString().replaceFirst("\\.(exe|cmd|sh)$", "");
        List<String> command = new ArrayList<>(words);
        for (At at : files) {
            String place = at.file + ":" + at.line + ":" + at.column;
            if (PLUS.contains(program)) {
                command.addAll(List.of("+" + at.line, at.file.toString()));
            } else if (COLONS.contains(program)) {
                command.add(place);
            } else if (GOTO.contains(program)) {
                command.addAll(List.of("--goto", place));
            } else if (NAMED.contains(program)) {
                command.addAll(List.of("--line", String.valueOf(at.line), "--column", String.valueOf(at.column), at.file.toString()));
            } else {
                command.add(at.file.toString());
            }
        }
        return List.of(command);
    }

    /** Opens files and waits until the editor has ended. */
    void open(List<At> files) {
        for (List<String> command : commands(files)) {
            try {
                int status = new ProcessBuilder(command).inheritIO().start().waitFor();
                if (status != 0) {
                    Terminal.complain("the editor " + words.getFirst() + " ended with status " + status + ".");
                }
            } catch (IOException e) {
                throw new ServiceProblem("The editor " + words.getFirst() + " could not be started: " + e.getMessage() + ". Set $VISUAL or $EDITOR, or editor in the client's settings.", ClientMain.FAILED);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }
}
