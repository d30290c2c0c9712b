package dev.oddbeacon.git;

import java.io.IOException;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How the system's Git reaches other repositories.
 *
 * @param policy which locations it goes to
 * @param work a folder for its configuration
 * @param longest for one fetch
 * @param stall for the time in which nothing arrives
 * @param mostBytes of one fetch
 */
public record GitTransport(LocationPolicy policy, Path work, Duration longest, Duration stall, long mostBytes) {
    private static final Duration LISTING = Duration.ofMinutes(2);
    private static final String SSH =
            "ssh -oBatchMode=yes -oConnectTimeout=20 -oPermitLocalCommand=no -oForwardAgent=no -oForwardX11=no";

    private static final String CONFIGURATION = """
            [core]
                hooksPath = /dev/null
                fsmonitor = false
            [gc]
                auto = 0
            [maintenance]
                auto = false
            [fetch]
                recurseSubmodules = false
            [protocol]
                version = 2
            [credential]
                helper =
            [safe]
                directory = *
            """;

    /** A run that goes to no other repository. */
    GitProcess local() throws IOException {
        return new GitProcess(configuration());
    }

    /**
     * A run that goes to a location, of which only the command and its arguments are missing.
     *
     * @throws LocationPolicy.ForbiddenException if it must not be gone to
     */
    GitProcess to(Location location) throws IOException, LocationPolicy.ForbiddenException {
        Optional<InetAddress> pinned = policy.check(location);
        GitProcess git = new GitProcess(configuration());
        if (location.folder().isPresent()) {
            return git.environment("GIT_ALLOW_PROTOCOL", "file");
        }
        Location.Host host = location.host().orElseThrow();
        git.environment("GIT_ALLOW_PROTOCOL", host.scheme());
        List<String> options = new ArrayList<>();
        if (host.scheme().equals("ssh")) {
            String hostName = pinned.map(address -> " -oHostName=" + address.getHostAddress() + " -oHostKeyAlias="
                            + host.name() + " -oProxyCommand=none -oProxyJump=none")
                    .orElse("");
            git.environment("GIT_SSH_COMMAND", SSH + hostName);
        } else {
            options.addAll(List.of(
                    "-c", "http.followRedirects=false", "-c", "http.lowSpeedLimit=500", "-c", "http.lowSpeedTime=60"));
            pinned.ifPresent(address -> options.addAll(
                    List.of("-c", "http.curloptResolve=" + host.name() + ":" + host.port() + ":" + literal(address))));
            if (host.scheme().equals("http")) {
                git.environment("HOME", emptyHome().toString()); // passwords go to nobody in the clear
            }
        }
        return git.arguments(options);
    }

    private static String literal(InetAddress address) {
        return address instanceof Inet6Address ? "[" + address.getHostAddress() + "]" : address.getHostAddress();
    }

    /** The time that listing the branches of a location may take. */
    Duration listing() {
        return LISTING.compareTo(longest) < 0 ? LISTING : longest;
    }

    /**
     * All of Git's configuration. A registered folder may belong to somebody else, which Git wants to be told; nothing
     * of such a folder is executed, as there are neither hooks nor helpers.
     */
    private Path configuration() throws IOException {
        Files.createDirectories(work);
        Path file = work.resolve("config");
        if (!Files.exists(file) || !Files.readString(file).equals(CONFIGURATION)) {
            Path fresh = Files.createTempFile(work, "config", ".new");
            Files.writeString(fresh, CONFIGURATION);
            Files.move(fresh, file, StandardCopyOption.ATOMIC_MOVE);
        }
        return file;
    }

    private Path emptyHome() throws IOException {
        return Files.createDirectories(work.resolve("nobody"));
    }
}
