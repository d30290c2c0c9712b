package dev.oddbeacon.git;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.eclipse.jgit.errors.ConfigInvalidException;
import org.eclipse.jgit.lib.Config;

/** Where the submodules of a repository lie, as its file {@code .gitmodules} says. */
public final class SubmoduleLocations {
    private static final String UP = "../";
    private static final String HERE = "./";

    private final Map<String, String> byPath = new HashMap<>();

    /**
     * @param file the content of {@code .gitmodules}; what cannot be read of it names no submodule
     * @param superproject the location of the repository that has it: where relative locations begin
     */
    public SubmoduleLocations(byte[] file, String superproject) {
        Config config = new Config();
        try {
            config.fromText(new String(file, StandardCharsets.UTF_8));
        } catch (ConfigInvalidException e) {
            return;
        }
        for (String name : config.getSubsections("submodule")) {
            String path = config.getString("submodule", name, "path");
            String url = config.getString("submodule", name, "url");
            if (path != null && url != null) {
                byPath.put(path, absolute(url, superproject));
            }
        }
    }

    /** Where the submodule at a path lies. */
    public Optional<String> of(String path) {
        return Optional.ofNullable(byPath.get(path));
    }

    /** Each {@code ../} takes away the last part of the superproject's location; a host is never taken away. */
    private static String absolute(String url, String superproject) {
        if (!url.startsWith(HERE) && !url.startsWith(UP)) {
            return url;
        }
        String base = superproject;
        String rest = url;
        while (rest.startsWith(HERE) || rest.startsWith(UP)) {
            base = base.endsWith("/") ? base.substring(0, base.length() - 1) : base;
            if (rest.startsWith(UP)) {
                int cut = Math.max(base.lastIndexOf('/'), base.lastIndexOf(':'));
                boolean isHost = cut > 0 && base.charAt(cut - 1) == '/' || cut < 0;
                if (isHost) {
                    return url; // further up than there is
                }
                base = base.charAt(cut) == ':' ? base.substring(0, cut + 1) : base.substring(0, cut);
                rest = rest.substring(UP.length());
            } else {
                rest = rest.substring(HERE.length());
            }
        }
        return base.endsWith(":") ? base + rest : base + "/" + rest;
    }
}
