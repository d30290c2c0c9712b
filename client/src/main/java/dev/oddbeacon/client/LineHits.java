package dev.oddbeacon.client;

import dev.oddbeacon.api.LinesAnswer.FileHits;

/** {@code repository/path:line:column: text}, a hit a line, as editors read it. */
final class LineHits implements HitPrinter {
    private final Terminal terminal;
    private final Names names;

    LineHits(Terminal terminal, Names names) {
        this.terminal = terminal;
        this.names = names;
    }

    @Override
    public void print(FileHits file) {
        String path = Terminal.clean(names.of(file.repository(), file.path()));
        if (file.excerpts().isEmpty()) {
            terminal.line(terminal.styled(Terminal.Style.PATH, path)); // found for what it lacks
        }
        file.excerpts().forEach(excerpt -> excerpt.lines().stream().filter(line -> !line.matches().isEmpty())
                .forEach(line -> terminal.line(terminal.styled(Terminal.Style.PATH, path) + ":" + line.number() + ":" + (line.matches().getFirst().start() + 1)
                        + ": " + MarkedText.of(terminal, line))));
    }
}
