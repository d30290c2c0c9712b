package dev.oddbeacon.server.secrets;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HexFormat;

/** Random values that nobody can guess, and what is kept of them. */
public final class Secrets {
    private static final int BYTES = 32;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Secrets() {}

    /** 256 random bits in 43 letters, digits, dashes and underscores. */
    public static String random() {
        byte[] bytes = new byte[BYTES];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** SHA-256 in hexadecimal digits: enough for what cannot be guessed, unlike passwords. */
    public static String hash(String secret) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every JDK has it
        }
    }
}
