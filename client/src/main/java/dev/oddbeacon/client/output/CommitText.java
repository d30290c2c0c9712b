package dev.oddbeacon.client.output;

import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer.Line;

/** Commits as text: a line each for other programs; with files and changed lines below for people. */
public final class CommitText {
    private static final int FEW_FILES = 5;

    private CommitText() {}

    /** Date, id, person and summary of a commit. */
    public static String line(Terminal terminal, CommitInfo commit) {
        return commit.authored().toLocalDate() + " "
                + terminal.styled(Terminal.Style.MATCH, Terminal.shortened(commit.id())) + " "
                + terminal.styled(
                        Terminal.Style.QUIET, Terminal.clean(commit.author().name())) + ": "
                + Terminal.clean(commit.summary());
    }

    public static void print(Terminal terminal, CommitsAnswer.Commit found) {
        CommitInfo commit = found.commit();
        terminal.line(terminal.styled(Terminal.Style.PATH, commit.repository()) + " " + line(terminal, commit));
        if (Terminal.isInteractive()) {
            found.files().stream()
                    .limit(FEW_FILES)
                    .forEach(file -> terminal.line("    " + terminal.styled(Terminal.Style.QUIET, file(file))));
            if (found.fileCount() > FEW_FILES) {
                terminal.line("    "
                        + terminal.styled(
                                Terminal.Style.QUIET,
                                "and " + Amounts.of(found.fileCount() - FEW_FILES, "file") + " more"));
            }
        }
        for (CommitsAnswer.Line line : found.lines()) {
            String text = MarkedText.of(
                    terminal, new Line(line.number(), line.text(), line.textStart(), line.matches(), false));
            terminal.line((Terminal.isInteractive() ? "    " : "")
                    + terminal.styled(Terminal.Style.PATH, Terminal.clean(line.path())) + ":" + line.number() + ": "
                    + line.kind() + text);
        }
    }

    static String file(CommitInfo.ChangedFile file) {
        String counts = file.binary() ? "binary" : "+" + file.added() + " -" + file.removed();
        return String.format("%-10s %-12s ", file.change(), counts)
                + Terminal.clean(file.path())
                + (file.from() == null ? "" : ", before " + Terminal.clean(file.from()));
    }
}
