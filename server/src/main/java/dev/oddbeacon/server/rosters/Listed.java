package dev.oddbeacon.server.rosters;

import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.git.ListSource;
import dev.oddbeacon.git.RepositoryProblemException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A repository as a roster's source lists it.
 *
 * @param title the name, if nothing else is said
 */
record Listed(String name, String title, String location, List<String> labels, List<String> branches) {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final int MOST = 100_000;
    private static final int MOST_FIELDS = 6;

    /**
     * What a source lists.
     *
     * @param mirror a folder of ours for the repository that holds the list
     * @throws RepositoryProblemException if it cannot be read
     */
    static List<Listed> of(ListSource source, Path mirror) throws RepositoryProblemException {
        Optional<Path> folder = source.folder();
        List<Listed> listed = folder.isPresent()
                ? inFolder(folder.get(), source.repositories())
                : inText(source.text(mirror), source.base());
        if (listed.size() > MOST) {
            throw new RepositoryProblemException(
                    "It lists " + listed.size() + " repositories; at most " + MOST + " are followed.");
        }
        return listed;
    }

    /** Names are the folders below the one that is followed, joined by dots, without {@code .git}. */
    static List<Listed> inFolder(Path folder, List<Path> repositories) {
        return repositories.stream()
                .map(repository -> {
                    String path = folder.equals(repository)
                            ? folder.getFileName().toString()
                            : folder.relativize(repository).toString();
                    String title = path.endsWith(".git") ? path.substring(0, path.length() - ".git".length()) : path;
                    return new Listed(title.replace('/', '.'), title, repository.toString(), List.of(), List.of());
                })
                .toList();
    }

    /** A list with a repository a line: fields separated by tabs, or an object of JSON. */
    static List<Listed> inText(String text, Optional<Path> base) throws RepositoryProblemException {
        List<Listed> listed = new ArrayList<>();
        int number = 0;
        for (String line : Split.parts(text, '\n')) {
            number++;
            String content = line.endsWith("\r") ? line.substring(0, line.length() - 1) : line;
            if (!content.isBlank() && !content.startsWith("#")) {
                listed.add(
                        content.stripLeading().startsWith("{")
                                ? ofJson(content, number, base)
                                : ofFields(content, number, base));
            }
        }
        return listed;
    }

    private static Listed ofFields(String line, int number, Optional<Path> base) throws RepositoryProblemException {
        List<String> fields = Split.parts(line, '\t');
        if (fields.size() < 2 || fields.size() > MOST_FIELDS) {
            throw new RepositoryProblemException(
                    "Line " + number
                            + " of the list is none: it needs a name and a location, separated by a tab; title, labels and branches may follow.");
        }
        return new Listed(
                fields.getFirst(),
                field(fields, 2).orElse(fields.getFirst()),
                absolute(fields.get(1), base),
                words(field(fields, 3)),
                words(field(fields, 4)));
    }

    private static Optional<String> field(List<String> fields, int number) {
        return number < fields.size() && !fields.get(number).isBlank()
                ? Optional.of(fields.get(number).strip())
                : Optional.empty();
    }

    private static List<String> words(Optional<String> field) {
        return field.map(text -> Split.parts(text, ',').stream()
                        .map(String::strip)
                        .filter(word -> !word.isEmpty())
                        .toList())
                .orElse(List.of());
    }

    private static Listed ofJson(String line, int number, Optional<Path> base) throws RepositoryProblemException {
        try {
            JsonNode node = JSON.readTree(line);
            String name = node.path("name").asString("");
            String location = node.path("location").asString("");
            if (!name.isEmpty() && !location.isEmpty()) {
                return new Listed(
                        name,
                        node.path("title").asString(name),
                        absolute(location, base),
                        texts(node.path("labels")),
                        texts(node.path("branches")));
            }
        } catch (JacksonException e) {
            // as one that lacks something
        }
        throw new RepositoryProblemException(
                "Line " + number
                        + " of the list is none: an object needs a name and a location; title, labels and branches may follow.");
    }

    private static List<String> texts(JsonNode list) {
        List<String> texts = new ArrayList<>();
        list.forEach(text -> texts.add(text.asString("")));
        return texts;
    }

    /** A location that is a relative path starts where the list is. */
    private static String absolute(String location, Optional<Path> base) {
        boolean isRelative = location.startsWith("./") || location.startsWith("../");
        try {
            return isRelative && base.isPresent()
                    ? base.get().resolve(location).normalize().toString()
                    : location;
        } catch (InvalidPathException e) {
            return location; // which registering refuses
        }
    }
}
