package dev.oddbeacon.client.options;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.WorkTree;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The files that another program listed. */
final class ListedFiles {
    private ListedFiles() {}

    /**
     * Reads a list.
     *
     * @param source a file, or {@code -} for standard input; a line for each, or zero bytes between if there are any
     * @param workTree where local paths lead; without it, they are {@code repository/path}
     * @return {@code repository/path}; not empty
     */
    static List<String> read(String source, Optional<WorkTree> workTree) {
        String text;
        try {
            text = source.equals("-")
                    ? new String(System.in.readAllBytes(), StandardCharsets.UTF_8)
                    : Files.readString(Path.of(source));
        } catch (IOException e) {
            throw new ServiceProblem(
                    "The list of files " + source
                            + " could not be read. --files-from takes a file in UTF-8, or - for standard input.",
                    ExitStatus.WRONG);
        }
        List<String> files = new ArrayList<>();
        for (String line : text.split(text.indexOf('\0') >= 0 ? "\0" : "\r?\n")) {
            if (!line.isBlank()) {
                files.add(
                        workTree.isEmpty()
                                ? line
                                : workTree.get().repository() + "/"
                                        + workTree.get()
                                                .inRepository(line)
                                                .orElseThrow(() -> new ServiceProblem(
                                                        line
                                                                + " is not in this work tree. With --here, listed files are local paths.",
                                                        ExitStatus.WRONG)));
            }
        }
        if (files.isEmpty()) {
            throw new ServiceProblem(
                    (source.equals("-") ? "Standard input" : source)
                            + " lists no files, so there is nothing to search in.",
                    ExitStatus.NOTHING_FOUND);
        }
        return files;
    }
}
