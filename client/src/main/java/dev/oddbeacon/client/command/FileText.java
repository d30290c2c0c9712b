package dev.oddbeacon.client.command;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** A file that a command is given. */
final class FileText {
    private FileText() {}

    /** @param file - for standard input @throws ServiceProblem if it cannot be read */
    static String read(String file) {
        try {
            return file.equals("-")
                    ? new String(System.in.readAllBytes(), StandardCharsets.UTF_8)
                    : Files.readString(Path.of(file));
        } catch (IOException e) {
            throw new ServiceProblem(file + " cannot be read as text: " + e.getMessage(), ExitStatus.WRONG);
        }
    }
}
