package dev.oddbeacon.git;

import java.io.IOException;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * How the system's Git reaches other repositories.
 *
 * @param policy which locations it goes to
 * @param work a folder for its configuration
 * @param longest for one fetch
 * @param stall for the time in which nothing arrives
 * @param mostBytes of one fetch
 * @param credentials that hosts are shown
 */
public record GitTransport(
        LocationPolicy policy,
        Path work,
        Duration longest,
        Duration stall,
        long mostBytes,
        Credential.Store credentials) {
    private static final Duration LISTING = Duration.ofMinutes(2);
    private static final String SSH =
            "ssh -oBatchMode=yes -oConnectTimeout=20 -oPermitLocalCommand=no -oForwardAgent=no -oForwardX11=no";

    /** Answers for the one host that it is set for; what it tells is in the environment, which no other user can read. */
    private static final String HELPER =
            "!f() { test \"$1\" = get && printf 'username=%s\\npassword=%s\\n' \"$ODDBEACON_GIT_USER\" \"$ODDBEACON_GIT_SECRET\"; }; f";

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
        Optional<Credential> credential = credentials.of(host);
        if (host.scheme().equals("ssh")) {
            String hostName = pinned.map(address -> " -oHostName=" + address.getHostAddress() + " -oHostKeyAlias="
                            + host.name() + " -oProxyCommand=none -oProxyJump=none")
                    .orElse("");
            String command = SSH + hostName;
            if (credential.orElse(null) instanceof Credential.SshKey key) {
                git.key(key.key());
                command += with(key, host);
            }
            git.environment("GIT_SSH_COMMAND", command);
        } else {
            options.addAll(List.of(
                    "-c", "http.followRedirects=false", "-c", "http.lowSpeedLimit=500", "-c", "http.lowSpeedTime=60"));
            pinned.ifPresent(address -> options.addAll(
                    List.of("-c", "http.curloptResolve=" + host.name() + ":" + host.port() + ":" + literal(address))));
            if (host.scheme().equals("http")) {
                git.environment("HOME", emptyHome().toString()); // passwords go to nobody in the clear
            }
            if (credential.orElse(null) instanceof Credential.Token token && isSafe(host)) {
                git.environment("HOME", emptyHome().toString())
                        .environment("ODDBEACON_GIT_USER", token.user())
                        .environment("ODDBEACON_GIT_SECRET", token.secret());
                options.addAll(List.of(
                        "-c",
                        "credential." + host.scheme() + "://" + host.name() + ":" + host.port() + ".helper=" + HELPER));
            }
        }
        return git.arguments(options);
    }

    /** What a host is shown by a request over https that is not Git's, if a token is kept for it. */
    Optional<String> authorization(Location.Host host) throws IOException {
        return host.scheme().equals("https")
                        && credentials.of(host).orElse(null) instanceof Credential.Token(String user, String secret)
                ? Optional.of("Basic "
                        + Base64.getEncoder().encodeToString((user + ":" + secret).getBytes(StandardCharsets.UTF_8)))
                : Optional.empty();
    }

    /** That key and no other, to a host that is known by its own keys. */
    private String with(Credential.SshKey key, Location.Host host) throws IOException {
        Path known = Files.createDirectories(work.resolve("known-hosts"))
                .resolve(Base64.getUrlEncoder()
                        .withoutPadding()
                        .encodeToString((host.name() + ":" + host.port()).getBytes(StandardCharsets.UTF_8)));
        String lines = key.hostKeys().stream()
                .map(hostKey -> host.name() + " " + hostKey + "\n")
                .collect(Collectors.joining());
        Path fresh = Files.createTempFile(work, "known", ".new");
        Files.writeString(fresh, lines);
        Files.move(fresh, known, StandardCopyOption.ATOMIC_MOVE);
        return " -oHostKeyAlias=" + host.name() + " '-oUserKnownHostsFile=\"" + known
                + "\"' -oGlobalKnownHostsFile=/dev/null -oStrictHostKeyChecking=yes -oIdentityFile=none"
                + " -oIdentitiesOnly=no -oPreferredAuthentications=publickey -oUpdateHostKeys=no -F/dev/null";
    }

    /** Secrets go to nobody in the clear, but to this machine itself. */
    private static boolean isSafe(Location.Host host) {
        return host.scheme().equals("https") || host.name().equals("127.0.0.1");
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
