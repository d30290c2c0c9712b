package dev.oddbeacon.client;

import dev.oddbeacon.api.FileContent;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "show", mixinStandardHelpOptions = true, description = "Prints a file.%n",
        footer = {"", "Examples:", "  oddbeacon show fare-gate:README.md", "  oddbeacon show tidewatch/tidewatch/stations.py@main",
            "  oddbeacon show --raw passenger-app:public/beacon.png > beacon.png"})
final class ShowCommand implements Callable<Integer> {
    @Parameters(paramLabel = "REPO:PATH[@REV]", description = "The file; REPO/PATH, as results print it, is taken too.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "A branch, tag or commit, where the path holds an @.")
    private String revision;

    @Option(names = "--raw", description = "The bytes as they are in the repository, also of files that are not text.")
    private boolean raw;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour line numbers (default: ${DEFAULT-VALUE}).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    /** What REPO:PATH[@REV] names. A repository's name has neither colon nor slash, so the first of them ends it. */
    record FileName(String repository, String path, String revision) {
        /** The same, or a repository as a whole: REPO[@REV]. */
        static FileName parseAny(String text, String revision) {
            if (text.indexOf(':') >= 0 || text.indexOf('/') >= 0) {
                return text.endsWith(":") || text.indexOf('/') == text.length() - 1 ? new FileName(text.substring(0, text.length() - 1), "", revision == null ? "" : revision) : parse(text, revision);
            }
            int at = text.indexOf('@');
            return at < 0 || revision != null ? new FileName(text, "", revision == null ? "" : revision) : new FileName(text.substring(0, at), "", text.substring(at + 1));
        }

        static FileName parse(String text, String revision) {
            int colon = text.indexOf(':');
            int slash = text.indexOf('/');
            int end = colon < 0 ? slash : slash < 0 ? colon : Math.min(colon, slash);
            if (end <= 0 || end == text.length() - 1) {
                throw new ServiceProblem("\"" + text + "\" does not name a file. Write REPO:PATH, for example fare-gate:README.md.", ClientMain.WRONG);
            }
            String path = text.substring(end + 1);
            int at = path.lastIndexOf('@');
            if (revision != null || at <= 0) {
                return new FileName(text.substring(0, end), path, revision == null ? "" : revision);
            }
            return new FileName(text.substring(0, end), path.substring(0, at), path.substring(at + 1));
        }
    }

    @Override
    public Integer call() {
        FileName name = FileName.parse(file, revision);
        Service.Parameters parameters = new Service.Parameters().add("path", name.path).add("rev", name.revision);
        if (raw) {
            Terminal.bytes(service.bytes(Service.path("repositories", name.repository, "raw"), parameters));
            return ClientMain.FOUND;
        }
        FileContent content = service.get(Service.path("repositories", name.repository, "file"), parameters, FileContent.class);
        if (content.text() == null) {
            throw new ServiceProblem(name.path + " is not shown: " + content.skipped() + " (" + Amounts.bytes(content.bytes()) + "). --raw writes its bytes.",
                    ClientMain.NOTHING_FOUND);
        }
        print(content);
        return ClientMain.FOUND;
    }

    private void print(FileContent content) {
        Terminal terminal = new Terminal(color);
        if (!Terminal.isInteractive()) {
            Terminal.bytes(content.text().getBytes(java.nio.charset.StandardCharsets.UTF_8));
            return;
        }
        int[] number = {0};
        content.text().lines().forEach(line -> terminal.line(terminal.styled(Terminal.Style.QUIET, String.format("%6d  ", ++number[0])) + Terminal.clean(line)));
    }
}
