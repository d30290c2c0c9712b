package dev.oddbeacon.git;

import dev.oddbeacon.core.text.Split;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;

/**
 * A key by which a host is known over ssh.
 *
 * @param type such as {@code ssh-ed25519}
 * @param key in Base64
 */
public record HostKey(String type, String key) {
    private static final Set<String> TYPES =
            Set.of("ssh-ed25519", "ecdsa-sha2-nistp256", "ecdsa-sha2-nistp384", "ecdsa-sha2-nistp521", "ssh-rsa");
    private static final Duration PATIENCE = Duration.ofSeconds(15);
    private static final int MOST = 20;

    /** Reads {@code TYPE BASE64}; empty if it is none. */
    public static Optional<HostKey> parse(String text) {
        List<String> parts = Split.parts(text.strip(), ' ');
        if (parts.size() < 2 || !TYPES.contains(parts.getFirst())) {
            return Optional.empty();
        }
        try {
            byte[] bytes = Base64.getDecoder().decode(parts.get(1));
            byte[] type = parts.getFirst().getBytes(StandardCharsets.US_ASCII);
            boolean saysItsType = bytes.length > 4 + type.length
                    && new String(bytes, 4, type.length, StandardCharsets.US_ASCII).equals(parts.getFirst());
            return saysItsType ? Optional.of(new HostKey(parts.getFirst(), parts.get(1))) : Optional.empty();
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** As people compare it: {@code SHA256:} and the hash in Base64, as ssh-keygen shows it. */
    public String fingerprint() {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256")
                    .digest(Base64.getDecoder().decode(key));
            return "SHA256:" + Base64.getEncoder().withoutPadding().encodeToString(hash);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every JDK has it
        }
    }

    @Override
    public String toString() {
        return type + " " + key;
    }

    /**
     * Asks a host for its keys. Whether they are really its, a person has to say.
     *
     * @return empty if it does not answer, or must not be gone to: which of the two is not told
     */
    public static List<HostKey> offeredBy(Location.Host host, LocationPolicy policy) throws IOException {
        String address;
        try {
            address = policy.check(host).map(pinned -> pinned.getHostAddress()).orElse(host.name());
        } catch (LocationPolicy.ForbiddenException e) {
            return List.of();
        }
        ProcessBuilder builder = new ProcessBuilder(
                "ssh-keyscan", "-T", "5", "-t", "ed25519,ecdsa,rsa", "-p", String.valueOf(host.port()), "--", address);
        Process process = builder.redirectError(ProcessBuilder.Redirect.DISCARD).start();
        try {
            process.getOutputStream().close();
            if (!process.waitFor(PATIENCE.toSeconds(), TimeUnit.SECONDS)) {
                return List.of();
            }
            List<HostKey> keys = new ArrayList<>();
            String told = new String(process.getInputStream().readNBytes(64 << 10), StandardCharsets.US_ASCII);
            for (String line : Split.parts(told, '\n')) {
                int space = line.indexOf(' ');
                if (space > 0 && !line.startsWith("#") && keys.size() < MOST) {
                    parse(line.substring(space + 1)).ifPresent(keys::add);
                }
            }
            return List.copyOf(keys);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return List.of();
        } finally {
            process.destroyForcibly();
        }
    }
}
