package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement.EditedLine;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Lines of one file that somebody has written anew, beside what is found in others. */
record LinesWrittenAnew(List<EditedLine> lines) implements Found.Finder {

    @Override
    public List<Found> in(LinedText text) throws StaysException {
        List<Found> found = new ArrayList<>();
        List<EditedLine> ascending =
                lines.stream().sorted(Comparator.comparingInt(EditedLine::line)).toList();
        int before = 0;
        for (EditedLine edited : ascending) {
            int line = edited.line();
            if (line == before) {
                throw new StaysException("line " + line + " is edited twice");
            }
            before = line;
            if (line < 1 || line > text.lineCount()) {
                throw new StaysException("it has no line " + line);
            }
            int start = text.start(line);
            int end = text.end(line);
            String there = text.text().substring(start, end);
            if (!there.equals(edited.was())) {
                throw new StaysException("line " + line + " has changed since");
            }
            if (!there.equals(edited.with())) {
                found.add(new Found(start, end, Optional.of(edited.with()), List.of()));
            }
        }
        return found;
    }

    /** The same, and what something else finds in the other lines. */
    Found.Finder and(Found.Finder other) {
        return text -> {
            List<Found> all = new ArrayList<>(in(text));
            for (Found found : other.in(text)) {
                boolean isEdited = lines.stream()
                        .anyMatch(edited -> edited.line() >= text.line(found.start())
                                && edited.line() <= text.line(Math.max(found.start(), found.end() - 1)));
                if (!isEdited) {
                    all.add(found);
                }
            }
            all.sort(Comparator.comparingInt(Found::start));
            return all;
        };
    }
}
