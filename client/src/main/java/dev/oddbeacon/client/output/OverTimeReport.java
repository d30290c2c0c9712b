package dev.oddbeacon.client.output;

import dev.oddbeacon.api.OverTimeAnswer;
import java.util.List;

/** When matching lines came and went, as text: for each repository a small plot, then the commits. */
public final class OverTimeReport {
    private static final String BARS = "\u2581\u2582\u2583\u2584\u2585\u2586\u2587\u2588";
    private static final int WIDTH = 48;

    private OverTimeReport() {}

    public static void print(Terminal terminal, OverTimeAnswer answer) {
        long first = answer.courses().stream()
                .flatMap(course -> course.points().stream())
                .mapToLong(point -> point.day().toEpochDay())
                .min()
                .orElse(0);
        long last = answer.courses().stream()
                .flatMap(course -> course.points().stream())
                .mapToLong(point -> point.day().toEpochDay())
                .max()
                .orElse(first);
        for (OverTimeAnswer.OfRepository course : answer.courses()) {
            List<OverTimeAnswer.Point> points = course.points();
            String span = points.isEmpty()
                    ? ""
                    : "   " + points.getFirst().day() + " to "
                            + points.getLast().day() + ", at most "
                            + Amounts.number(points.stream()
                                    .mapToLong(OverTimeAnswer.Point::lines)
                                    .max()
                                    .orElse(0));
            terminal.line(terminal.styled(Terminal.Style.PATH, String.format("%-18s", course.repository())) + " "
                    + String.format("%-" + WIDTH + "s", plot(points, first, Math.max(1, last - first))) + " now "
                    + Amounts.number(course.now())
                    + terminal.styled(
                            Terminal.Style.QUIET,
                            span
                                    + (course.difference() == 0
                                            ? ""
                                            : ", " + course.difference() + " by merges or unknown")));
        }
        for (OverTimeAnswer.Event event : answer.events()) {
            terminal.line(terminal.styled(Terminal.Style.PATH, event.commit().repository()) + " "
                    + String.format("%+d", event.added() - event.removed()) + " "
                    + CommitText.line(terminal, event.commit()));
        }
    }

    /** Columns of equal time, as high as the lines there were at the end of each. */
    private static String plot(List<OverTimeAnswer.Point> points, long first, long span) {
        if (points.isEmpty()) {
            return "";
        }
        long most = Math.max(
                1, points.stream().mapToLong(OverTimeAnswer.Point::lines).max().orElse(1));
        StringBuilder plot = new StringBuilder();
        int at = -1; // the latest point so far
        for (int column = 0; column < WIDTH; column++) {
            long until = first + span * (column + 1) / WIDTH;
            while (at + 1 < points.size() && points.get(at + 1).day().toEpochDay() <= until) {
                at++;
            }
            long lines = at < 0 ? 0 : Math.max(0, points.get(at).lines());
            plot.append(
                    lines == 0
                            ? ' '
                            : BARS.charAt((int) Math.min(BARS.length() - 1, lines * BARS.length() / (most + 1))));
        }
        return plot.toString();
    }
}
