package dev.oddbeacon.client.command;

import dev.oddbeacon.client.ClientMain;
import dev.oddbeacon.client.lsp.EditorServer;
import dev.oddbeacon.client.service.Service;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code oddbeacon lsp}. */
@Command(
        name = "lsp",
        mixinStandardHelpOptions = true,
        description =
                "Serves an editor by the Language Server Protocol, over standard input and output: definitions, references, relatives, calls, outlines, names of all repositories, and renaming.%n",
        footer = {
            "",
            "It is for editors to start, in a Git work tree of a repository of the service.",
            "Settings, as options at the start or as the section \"oddbeacon\":",
            "  {\"worklists\": [\"NAME\"], \"usesShown\": true}"
        })
public final class LspCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Override
    public Integer call() {
        return EditorServer.serve(service, ClientMain.version().orElse("(not packaged)"), System.in, System.out);
    }
}
