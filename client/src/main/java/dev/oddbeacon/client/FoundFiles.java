package dev.oddbeacon.client;

import dev.oddbeacon.api.LinesAnswer.FileHits;

/** {@code repository/path}, a file a line; or each followed by a zero byte, for programs that take any name. */
final class FoundFiles implements HitPrinter {
    private final Terminal terminal;
    private final boolean zeroBytes;

    FoundFiles(Terminal terminal, boolean zeroBytes) {
        this.terminal = terminal;
        this.zeroBytes = zeroBytes;
    }

    @Override
    public void print(FileHits file) {
        terminal.item(file.repository() + "/" + file.path(), zeroBytes);
    }
}
