package dev.oddbeacon.server.following;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Locale;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** HMAC-SHA256 of messages, as W3C's WebSub writes it: {@code sha256=} and hexadecimal digits. */
final class Signature {
    private static final String ALGORITHM = "HmacSHA256";
    private static final String PREFIX = "sha256=";

    private final byte[] secret;

    Signature(String secret) {
        this.secret = secret.getBytes(StandardCharsets.UTF_8);
    }

    /** Whether that is the signature of a message; the digits may stand without their prefix. */
    boolean isOf(byte[] message, String signature) {
        String digits = signature.strip().toLowerCase(Locale.ROOT);
        byte[] expected = of(message).getBytes(StandardCharsets.US_ASCII);
        byte[] given = (digits.startsWith(PREFIX) ? digits : PREFIX + digits).getBytes(StandardCharsets.UTF_8);
        return MessageDigest.isEqual(expected, given); // in a time that does not tell how much of it is right
    }

    /** The signature of a message. */
    String of(byte[] message) {
        try {
            Mac mac = Mac.getInstance(ALGORITHM);
            mac.init(new SecretKeySpec(secret, ALGORITHM));
            return PREFIX + HexFormat.of().formatHex(mac.doFinal(message));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e); // every Java has it
        }
    }
}
