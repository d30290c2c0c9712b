package dev.oddbeacon.server.credentials;

import dev.oddbeacon.api.CredentialInfo;
import dev.oddbeacon.api.HostKeys;
import dev.oddbeacon.api.NewCredential;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.Credential;
import dev.oddbeacon.git.HostKey;
import dev.oddbeacon.git.Location;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.git.SshAgent;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.CredentialRecord;
import dev.oddbeacon.server.records.CredentialRecords;
import dev.oddbeacon.server.secrets.Vault;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Credentials for private repositories, by host. A secret is encrypted as soon as it arrives, and decrypted for the one
 * run of Git that shows it to its host; nobody reads it back.
 */
@Component
public class Credentials implements Credential.Store {
    private static final Logger LOG = LoggerFactory.getLogger(Credentials.class);
    private static final String SSH_KEY = "ssh-key";
    private static final String TOKEN = "token";
    private static final int LONGEST_SECRET = 16_000;
    private static final int LONGEST_USER = 200;
    private static final int LONGEST_HOST = 250;
    private static final int MOST_HOST_KEYS = 20;

    private final CredentialRecords records;
    private final Vault vault;
    private final Settings settings;
    private final TransactionTemplate transaction;

    Credentials(CredentialRecords records, Vault vault, Settings settings, TransactionTemplate transaction) {
        this.records = records;
        this.vault = vault;
        this.settings = settings;
        this.transaction = transaction;
    }

    @Override
    public Optional<Credential> of(Location.Host host) {
        String kind = host.scheme().equals("ssh") ? SSH_KEY : TOKEN;
        Optional<CredentialRecord> record = records.findByHostAndKind(key(host), kind);
        Optional<String> secret = record.flatMap(found -> vault.decrypt(purpose(found), found.secret()));
        if (record.isPresent() && secret.isEmpty()) {
            LOG.warn(
                    "The credential for {} cannot be read any more: give it again",
                    record.get().host());
        }
        return secret.map(text -> kind.equals(SSH_KEY)
                ? new Credential.SshKey(text, hostKeys(record.get()))
                : new Credential.Token(record.get().userName(), text));
    }

    private static String key(Location.Host host) {
        return host.name().toLowerCase(Locale.ROOT) + ":" + host.port();
    }

    private static String purpose(CredentialRecord record) {
        return "credential " + record.kind() + " " + record.host();
    }

    private static List<HostKey> hostKeys(CredentialRecord record) {
        return record.hostKeys().stream()
                .flatMap(text -> HostKey.parse(text).stream())
                .sorted(Comparator.comparing(HostKey::type))
                .toList();
    }

    /** All of them by host, without what is secret. */
    List<CredentialInfo> all() {
        return records.findAll().stream()
                .sorted(Comparator.comparing(CredentialRecord::host).thenComparing(CredentialRecord::kind))
                .map(Credentials::info)
                .toList();
    }

    private static CredentialInfo info(CredentialRecord record) {
        return new CredentialInfo(
                record.id(),
                shown(record.host(), record.kind()),
                record.kind(),
                record.userName(),
                record.fingerprint().isEmpty() ? null : record.fingerprint(),
                hostKeys(record).stream().map(Credentials::info).toList(),
                record.givenBy().orElse(null),
                record.given());
    }

    private static HostKeys.Key info(HostKey key) {
        return new HostKeys.Key(key.type(), key.key(), key.fingerprint());
    }

    private static String shown(String host, String kind) {
        String usual = kind.equals(SSH_KEY) ? ":22" : ":443";
        return host.endsWith(usual) ? host.substring(0, host.length() - usual.length()) : host;
    }

    /** The keys that a host offers now. */
    HostKeys offered(String host) throws IOException {
        Location.Host parsed = host(SSH_KEY, host);
        return new HostKeys(
                shown(key(parsed), SSH_KEY),
                HostKey.offeredBy(parsed, settings.locationPolicy()).stream()
                        .map(Credentials::info)
                        .toList());
    }

    /**
     * Gives a credential, in place of the one that its host had.
     *
     * @param account that gives it; empty where nobody signs in
     * @throws BadRequestException if a part of it cannot be taken
     */
    CredentialInfo give(NewCredential wanted, Optional<String> account) throws IOException {
        if (!SSH_KEY.equals(wanted.kind()) && !TOKEN.equals(wanted.kind())) {
            throw new BadRequestException("A credential is an ssh-key or a token.");
        }
        String host = key(host(wanted.kind(), wanted.host()));
        String secret = Optional.ofNullable(wanted.secret()).orElse("").strip();
        if (secret.isEmpty() || secret.length() > LONGEST_SECRET) {
            throw new BadRequestException("The secret is missing, or longer than " + LONGEST_SECRET + " characters.");
        }
        boolean isKey = wanted.kind().equals(SSH_KEY);
        String user = Optional.ofNullable(wanted.user())
                .filter(text -> !text.isBlank())
                .orElse("git")
                .strip();
        if (user.length() > LONGEST_USER || !Visible.isVisible(user)) {
            throw new BadRequestException(
                    "The user has more than " + LONGEST_USER + " characters, or some that cannot be seen.");
        }
        if (!isKey && !Visible.isVisible(secret)) {
            throw new BadRequestException("The token has characters that cannot be seen, such as line ends.");
        }
        String fingerprint = isKey ? fingerprint(secret) : "";
        List<HostKey> hostKeys = isKey ? keysOfHost(wanted) : List.of();
        return transaction.execute(_ -> {
            CredentialRecord record = records.findByHostAndKind(host, wanted.kind())
                    .orElseGet(() -> new CredentialRecord(host, wanted.kind()));
            record.give(
                    user,
                    vault.encrypt(purpose(record), secret),
                    fingerprint,
                    hostKeys.stream().map(HostKey::toString).toList(),
                    account.orElse(null));
            return info(records.save(record));
        });
    }

    private static String fingerprint(String key) throws IOException {
        return SshAgent.fingerprint(key)
                .orElseThrow(
                        () -> new BadRequestException(
                                "This is not a private key that can be used: give one of OpenSSH, as ssh-keygen writes it, without a passphrase."));
    }

    private static List<HostKey> keysOfHost(NewCredential wanted) {
        List<String> told = Optional.ofNullable(wanted.hostKeys()).orElse(List.of());
        if (told.isEmpty() || told.size() > MOST_HOST_KEYS) {
            throw new BadRequestException("Say by which keys the host is known: hostKeys, 1 to " + MOST_HOST_KEYS
                    + ". POST /api/v1/credentials/host-keys tells what it offers; compare the fingerprints first.");
        }
        return told.stream()
                .map(text -> HostKey.parse(text == null ? "" : text)
                        .orElseThrow(() -> new BadRequestException("\"" + Visible.shown(text)
                                + "\" is not a key of a host: TYPE BASE64, as known_hosts has it.")))
                .toList();
    }

    private static Location.Host host(String kind, String text) {
        String scheme = kind.equals(SSH_KEY) ? "ssh" : "https";
        String name = Optional.ofNullable(text).orElse("").strip();
        boolean isPlain = !name.isEmpty()
                && name.length() <= LONGEST_HOST
                && name.chars().allMatch(c -> c > ' ' && c < 0x7f && "/@?#\\".indexOf(c) < 0);
        try {
            if (isPlain) {
                return Location.parse(scheme + "://" + name + "/x").host().orElseThrow();
            }
        } catch (RepositoryProblemException e) {
            // said below
        }
        throw new BadRequestException(
                "\"" + Visible.shown(text) + "\" is not a host. Give its name, with :PORT if it is not the usual one.");
    }

    /** Takes a credential back. @throws NotFoundException if there is none */
    CredentialInfo remove(long id) {
        CredentialRecord record =
                records.findById(id).orElseThrow(() -> new NotFoundException("There is no such credential."));
        records.delete(record);
        return info(record);
    }

    /** Whether a location is at a host of a credential. */
    static boolean isAt(CredentialInfo credential, String location) {
        try {
            return Location.parse(location)
                    .host()
                    .filter(host ->
                            host.scheme().equals("ssh") == credential.kind().equals(SSH_KEY))
                    .map(host -> shown(key(host), credential.kind()))
                    .filter(credential.host()::equals)
                    .isPresent();
        } catch (RepositoryProblemException e) {
            return false;
        }
    }
}
