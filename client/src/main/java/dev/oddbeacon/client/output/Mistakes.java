package dev.oddbeacon.client.output;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.Problem;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.List;
import java.util.function.Supplier;

/** Mistakes in a search text, each under the text with its place marked. */
public final class Mistakes {
    /** Says how many of the listed files there are not. */
    public static void tellMissing(LinesAnswer.IndexState index) {
        if (index.missingFiles() > 0) {
            Terminal.complain(
                    Amounts.of(index.missingFiles(), "listed file") + " not in the index, and so not searched.");
        }
    }

    private static final int MOST = 3;
    private static final int WIDEST = 100;

    private Mistakes() {}

    /** Runs a search; of a text that cannot be asked for, the mistakes are marked in what is told. */
    public static <T> T marking(String text, Supplier<T> search) {
        try {
            return search.get();
        } catch (ServiceProblem problem) {
            throw problem.mistakes().isEmpty()
                    ? problem
                    : new ServiceProblem(describe(text, problem.mistakes()), problem.exitStatus());
        }
    }

    /** The message for a person at a terminal. */
    static String describe(String text, List<Problem.Mistake> mistakes) {
        StringBuilder message = new StringBuilder();
        for (Problem.Mistake mistake : mistakes.subList(0, Math.min(MOST, mistakes.size()))) {
            message.append(message.isEmpty() ? "" : "\n").append(mistake.message());
            int start = Math.min(mistake.position(), text.length());
            int from = Math.max(0, start - WIDEST / 2);
            int until = Math.min(text.length(), from + WIDEST);
            int length = Math.max(1, Math.min(mistake.length(), until - start));
            message.append("\n  ")
                    .append(Terminal.clean(text.substring(from, until)))
                    .append("\n  ")
                    .append(" ".repeat(start - from))
                    .append("^".repeat(length));
            if (mistake.suggestion() != null) {
                message.append("\n  perhaps: ").append(Terminal.clean(mistake.suggestion()));
            }
        }
        return message.toString();
    }
}
