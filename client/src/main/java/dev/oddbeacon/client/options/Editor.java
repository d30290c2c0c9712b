package dev.oddbeacon.client.options;

import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Somebody's editor, and how it is told a line: in one of two forms that many editors take, or by a command with
 * {@code {file}}, {@code {line}} or {@code {column}} in it.
 *
 * @param words of the command
 */
public record Editor(List<String> words, Form form) {
    /** The form in which an editor takes a place on its command line. */
    public enum Form {
        /** {@code +12 file} */
        PLUS("+LINE FILE"),
        /** {@code file:12:5} */
        COLONS("FILE:LINE:COLUMN");

        private final String name;

        Form(String name) {
            this.name = name;
        }

        /** @throws ServiceProblem if there is no such form */
        public static Form of(String name) {
            return Arrays.stream(values())
                    .filter(form -> form.name.equalsIgnoreCase(name.strip()))
                    .findFirst()
                    .orElseThrow(() -> new ServiceProblem(
                            "editor.form is \"" + name + "\"; it must be " + PLUS.name + " or " + COLONS.name
                                    + ". For any other form write {file}, {line} and {column} into editor.",
                            ExitStatus.WRONG));
        }

        private List<String> words(At at) {
            return switch (this) {
                case PLUS -> List.of("+" + at.line, at.file.toString());
                case COLONS -> List.of(at.file + ":" + at.line + ":" + at.column);
            };
        }
    }

    private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|'([^']*)'|(\\S+)");

    /** A local file to open. @param line from 1 @param column from 1 */
    record At(Path file, int line, int column) {}

    public static Editor of(String command, Form form) {
        return new Editor(words(command), form);
    }

    /** The words of a command line; quotation marks keep spaces within one. */
    public static List<String> words(String command) {
        List<String> words = new ArrayList<>();
        for (Matcher matcher = WORD.matcher(command); matcher.find(); ) {
            words.add(
                    matcher.group(1) != null
                            ? matcher.group(1)
                            : matcher.group(2) != null ? matcher.group(2) : matcher.group(3));
        }
        return List.copyOf(words);
    }

    /**
     * The commands that open files: one for all of them, or, where the command says itself where a file stands, one for
     * each.
     */
    List<List<String>> commands(List<At> files) {
        if (words.stream().anyMatch(word -> word.contains("{file}"))) {
            return files.stream()
                    .map(at -> words.stream()
                            .map(word -> word.replace("{file}", at.file.toString())
                                    .replace("{line}", String.valueOf(at.line))
                                    .replace("{column}", String.valueOf(at.column)))
                            .toList())
                    .toList();
        }
        List<String> command = new ArrayList<>(words);
        files.forEach(at -> command.addAll(form.words(at)));
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
                throw new ServiceProblem(
                        "The editor " + words.getFirst() + " could not be started: " + e.getMessage()
                                + ". Set $VISUAL or $EDITOR, or editor in the client's settings.",
                        ExitStatus.FAILED);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }
}
