package dev.oddbeacon.client.command;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.Replacement.EditedLine;
import dev.oddbeacon.client.options.OpenOptions;
import dev.oddbeacon.client.options.Pages;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Hands the lines that a search finds to somebody's editor as a text, each after its place, and takes them back. */
final class LinesInEditor {
    private static final int PAGE = 1_000;
    private static final int MOST = 50_000; // lines
    private static final int LONGEST = 2_000; // UTF-16 units; of longer lines a search shows a part
    private static final String HEAD = """
            # Change what comes after the places, then save this file and leave the editor.
            # A line that is taken out of this file, or is left as it is, does not change.
            """;

    private final Service service;

    LinesInEditor(Service service) {
        this.service = service;
    }

    /** @throws ServiceProblem if nothing was found, or nothing was changed, or what comes back cannot be read */
    List<EditedLine> edit(Service.Parameters search) {
        Map<String, EditedLine> byPlace = found(search);
        if (byPlace.isEmpty()) {
            throw new ServiceProblem("Nothing was found to edit.", ExitStatus.NOTHING_FOUND);
        }
        StringBuilder text = new StringBuilder(HEAD);
        byPlace.forEach((place, line) -> text.append(place).append(line.was()).append('\n'));
        List<EditedLine> edited = read(inEditor(text.toString()), byPlace);
        if (edited.isEmpty()) {
            throw new ServiceProblem("No line was changed.", ExitStatus.NOTHING_FOUND);
        }
        return edited;
    }

    /** The lines by their places, as these begin a line of the text. */
    private Map<String, EditedLine> found(Service.Parameters search) {
        Map<String, EditedLine> byPlace = new LinkedHashMap<>();
        Pages<LinesAnswer> pages = Pages.of(
                MOST,
                PAGE,
                (cursor, most) -> service.search(
                        Service.path("search", "lines"),
                        new Service.Parameters()
                                .addAll(search)
                                .add("context", 0)
                                .add("limit", most)
                                .addGiven("cursor", cursor),
                        LinesAnswer.class),
                page -> page.files().stream()
                        .mapToLong(file -> add(file, byPlace))
                        .sum(),
                LinesAnswer::next);
        if (pages.cut()) {
            throw new ServiceProblem("More than " + MOST + " lines match. Narrow the search.", ExitStatus.WRONG);
        }
        return byPlace;
    }

    private static long add(LinesAnswer.FileHits file, Map<String, EditedLine> byPlace) {
        long hits = 0;
        for (LinesAnswer.Excerpt excerpt : file.excerpts()) {
            for (LinesAnswer.Line line : excerpt.lines()) {
                if (line.matches().isEmpty()) {
                    continue;
                }
                hits++;
                String name = file.repository() + "/" + file.path() + ":" + line.number();
                if (line.textStart() > 0 || line.text().length() >= LONGEST) {
                    Terminal.complain(Terminal.clean(name) + " is too long to be edited here, and left out");
                    continue;
                }
                String place = byPlace.containsKey(name + ": ") ? name + " (" + file.branch() + "): " : name + ": ";
                byPlace.put(
                        place,
                        new EditedLine(
                                file.repository(), file.branch(), file.path(), line.number(), line.text(), null));
            }
        }
        return hits;
    }

    private static String inEditor(String text) {
        try {
            Path file = Files.createTempFile("oddbeacon-lines-", ".txt");
            Files.writeString(file, text);
            OpenOptions.open(file);
            String edited = Files.readString(file);
            Files.delete(file);
            return edited;
        } catch (IOException e) {
            throw new ServiceProblem("What was edited cannot be read: " + e.getMessage(), ExitStatus.FAILED);
        }
    }

    private static List<EditedLine> read(String text, Map<String, EditedLine> byPlace) {
        List<EditedLine> edited = new ArrayList<>();
        Map<String, Integer> seen = new LinkedHashMap<>();
        int number = 0;
        for (String line : text.lines().toList()) {
            number++;
            if (line.isBlank() || line.startsWith("#")) {
                continue;
            }
            String place = place(line, number, byPlace);
            if (seen.put(place, number) != null) {
                throw wrong(number, "has the same place as another");
            }
            EditedLine was = byPlace.get(place);
            String with = line.length() < place.length() ? "" : line.substring(place.length());
            if (!with.equals(was.was())) {
                edited.add(new EditedLine(was.repository(), was.branch(), was.path(), was.line(), was.was(), with));
            }
        }
        return edited;
    }

    /** The place that a line begins with; an editor may have taken the space at its end. */
    private static String place(String line, int number, Map<String, EditedLine> byPlace) {
        for (int colon = line.indexOf(':'); colon >= 0; colon = line.indexOf(':', colon + 1)) {
            String place = line.substring(0, colon) + ": ";
            if (byPlace.containsKey(place) && (line + " ").startsWith(place)) {
                return place;
            }
        }
        throw wrong(number, "does not begin with the place that it had");
    }

    private static ServiceProblem wrong(int number, String what) {
        return new ServiceProblem(
                "Line " + number + " of what was edited " + what + ". Nothing was changed.", ExitStatus.WRONG);
    }
}
