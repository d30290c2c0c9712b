package dev.oddbeacon.client.options;

import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** The file that a command is about, on an indexed branch. */
public final class IndexedFile {
    @Parameters(
            paramLabel = "REPO:PATH[@REV]",
            description = "The file; REPO/PATH, as results print it, is taken too. REV: an indexed branch or tag.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "An indexed branch or tag, where the path holds an @.")
    private String revision;

    public FileName name() {
        return FileName.parse(file, revision);
    }
}
