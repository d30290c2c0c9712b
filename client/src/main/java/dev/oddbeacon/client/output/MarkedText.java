package dev.oddbeacon.client.output;

import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.api.LinesAnswer.Match;

/** The text of a line with its matches marked. */
public final class MarkedText {
    private MarkedText() {}

    public static String of(Terminal terminal, Line line) {
        StringBuilder text = new StringBuilder(line.textStart() > 0 ? "\u2026" : "");
        int at = 0;
        for (Match match : line.matches()) {
            int start =
                    Math.clamp(match.start() - line.textStart(), at, line.text().length());
            int end = Math.clamp(
                    match.end() - line.textStart(), start, line.text().length());
            text.append(Terminal.clean(line.text().substring(at, start)));
            if (end > start) {
                text.append(terminal.styled(
                        Terminal.Style.MATCH, Terminal.clean(line.text().substring(start, end))));
            }
            at = end;
        }
        return text.append(Terminal.clean(line.text().substring(at))).toString();
    }
}
