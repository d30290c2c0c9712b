package dev.oddbeacon.client.options;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Properties;

/**
 * What a person keeps for the client, in {@code ~/.config/oddbeacon/client.properties} ({@code $XDG_CONFIG_HOME} and
 * {@code $ODDBEACON_CONFIG} are honoured):
 *
 * <pre>
 *   folder.berth-planner = /home/ada/work/berth-planner    a work tree of that repository
 *   editor = my-editor --wait                              instead of $VISUAL and $EDITOR
 *   editor.form = FILE:LINE:COLUMN                         how it is told a place; +LINE FILE if nothing is said
 *   editor = my-editor --line {line} {file}                or all of it at once
 *   browse.key.reading = ctrl-g                            another key of browse
 * </pre>
 */
public record ClientSettings(Path file, Properties values) {
    public static ClientSettings read() {
        Path file = place();
        Properties values = new Properties();
        if (Files.exists(file)) {
            try (Reader reader = Files.newBufferedReader(file)) {
                values.load(reader);
            } catch (IOException | IllegalArgumentException e) {
                throw new ServiceProblem(
                        file + " could not be read: " + e.getMessage()
                                + ". It holds lines such as folder.berth-planner = /home/ada/berth-planner.",
                        ExitStatus.WRONG);
            }
        }
        return new ClientSettings(file, values);
    }

    private static Path place() {
        String own = System.getenv("ODDBEACON_CONFIG");
        if (own != null && !own.isEmpty()) {
            return Path.of(own);
        }
        String home = System.getenv("XDG_CONFIG_HOME");
        return (home == null || home.isEmpty() ? Path.of(System.getProperty("user.home"), ".config") : Path.of(home))
                .resolve("oddbeacon")
                .resolve("client.properties");
    }

    /** The work tree of a repository. */
    public Optional<Path> folder(String repository) {
        return Optional.ofNullable(values.getProperty("folder." + repository))
                .map(String::strip)
                .filter(text -> !text.isEmpty())
                .map(text -> text.startsWith("~/")
                        ? Path.of(System.getProperty("user.home")).resolve(text.substring(2))
                        : Path.of(text));
    }

    /** The editor; that of the environment if none is set here. */
    public Optional<Editor> editor() {
        Editor.Form form = Optional.ofNullable(values.getProperty("editor.form"))
                .map(Editor.Form::of)
                .orElse(Editor.Form.PLUS);
        for (String command :
                new String[] {values.getProperty("editor"), System.getenv("VISUAL"), System.getenv("EDITOR")}) {
            if (command != null && !command.isBlank()) {
                return Optional.of(Editor.of(command, form));
            }
        }
        return Optional.empty();
    }
}
