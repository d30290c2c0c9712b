package dev.oddbeacon.client.options;

import dev.oddbeacon.client.service.Service;
import picocli.CommandLine.Option;

/** The file that somebody has in hand. */
public final class NearOption {
    @Option(
            names = "--near",
            paramLabel = "REPO:PATH",
            description =
                    "Files close to this one first: of its folder, then of those around it, then of other repositories.")
    private String near;

    public void addTo(Service.Parameters parameters) {
        if (near != null) {
            FileName file = FileName.parse(near, "");
            parameters.add("near", file.repository() + "/" + file.path());
        }
    }
}
