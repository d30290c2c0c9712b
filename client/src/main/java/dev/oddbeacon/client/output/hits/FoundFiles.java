package dev.oddbeacon.client.output.hits;

import dev.oddbeacon.api.LinesAnswer.FileHits;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Terminal;

/** {@code repository/path}, a file a line; or each followed by a zero byte, for programs that take any name. */
public final class FoundFiles implements HitPrinter {
    private final Terminal terminal;
    private final Names names;
    private final boolean zeroBytes;

    public FoundFiles(Terminal terminal, Names names, boolean zeroBytes) {
        this.terminal = terminal;
        this.names = names;
        this.zeroBytes = zeroBytes;
    }

    @Override
    public void print(FileHits file) {
        terminal.item(names.of(file.repository(), file.path()), zeroBytes);
    }
}
