package dev.oddbeacon.server.secrets;

import dev.oddbeacon.server.Settings;
import jakarta.annotation.PostConstruct;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;

/**
 * Encrypts what has to be told again later, and must not be read where it is kept: AES-256-GCM with a key of 32 bytes in
 * the file {@code secret-key} of the data folder, which only whoever runs the service can read. What is encrypted for one
 * purpose cannot be read for another.
 */
@Component
public class Vault {
    private static final String ALGORITHM = "AES/GCM/NoPadding";
    private static final int KEY = 32;
    private static final int NONCE = 12;
    private static final int TAG_BITS = 128;

    private final SecureRandom random = new SecureRandom();
    private final Path file;
    private SecretKeySpec key;

    Vault(Settings settings) {
        this.file = settings.data().toAbsolutePath().resolve("secret-key");
    }

    @PostConstruct
    void open() throws IOException {
        if (!Files.exists(file)) {
            make();
        }
        byte[] bytes = Base64.getDecoder().decode(Files.readString(file).strip());
        if (bytes.length != KEY) {
            throw new IOException(file + " is not a key of " + KEY + " bytes. Bring it back from a copy, or remove it: "
                    + "what was encrypted with it has to be given again.");
        }
        key = new SecretKeySpec(bytes, "AES");
    }

    /** Written as a whole or not at all. */
    private void make() throws IOException {
        byte[] bytes = new byte[KEY];
        random.nextBytes(bytes);
        Files.createDirectories(file.getParent());
        Path unfinished = Files.createTempFile(
                file.getParent(),
                "secret-key",
                ".unfinished",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        try {
            Files.writeString(unfinished, Base64.getEncoder().encodeToString(bytes));
            Files.move(unfinished, file, StandardCopyOption.ATOMIC_MOVE);
        } catch (FileAlreadyExistsException e) {
            Files.deleteIfExists(unfinished);
        }
    }

    /** Tells its key from others. */
    public String keyHash() {
        return Secrets.hash(Base64.getEncoder().encodeToString(key.getEncoded()));
    }

    /** @param purpose what it is for, as reading it has to say again */
    public byte[] encrypt(String purpose, String secret) {
        byte[] nonce = new byte[NONCE];
        random.nextBytes(nonce);
        try {
            byte[] encrypted =
                    cipher(Cipher.ENCRYPT_MODE, nonce, purpose).doFinal(secret.getBytes(StandardCharsets.UTF_8));
            byte[] both = Arrays.copyOf(nonce, NONCE + encrypted.length);
            System.arraycopy(encrypted, 0, both, NONCE, encrypted.length);
            return both;
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e); // every JDK can
        }
    }

    /** Empty if it was encrypted for another purpose or with another key, or was changed. */
    public Optional<String> decrypt(String purpose, byte[] encrypted) {
        if (encrypted.length < NONCE) {
            return Optional.empty();
        }
        try {
            byte[] secret = cipher(Cipher.DECRYPT_MODE, Arrays.copyOf(encrypted, NONCE), purpose)
                    .doFinal(encrypted, NONCE, encrypted.length - NONCE);
            return Optional.of(new String(secret, StandardCharsets.UTF_8));
        } catch (GeneralSecurityException e) {
            return Optional.empty();
        }
    }

    private Cipher cipher(int mode, byte[] nonce, String purpose) throws GeneralSecurityException {
        Cipher cipher = Cipher.getInstance(ALGORITHM);
        cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
        cipher.updateAAD(purpose.getBytes(StandardCharsets.UTF_8));
        return cipher;
    }
}
