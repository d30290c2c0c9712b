package dev.oddbeacon.server.processes;

import dev.oddbeacon.server.CannotStartException;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.MachineRecords;
import dev.oddbeacon.server.records.MachineRecords.ClusterRecord;
import dev.oddbeacon.server.records.MachineRecords.MachineRecord;
import dev.oddbeacon.server.secrets.Vault;
import jakarta.annotation.PostConstruct;
import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Clock;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;

/**
 * Which machine of a cluster this is. Its number lies in the data folder, so that it is the same after a restart, and a
 * data folder that was lost makes another machine. Without a cluster it has no number, and is no machine of any.
 */
@Component
public class ThisMachine {
    private static final Logger LOG = LoggerFactory.getLogger(ThisMachine.class);
    private static final long NONE = 0;
    private static final String TAKEN_OUT = "taken out";
    private static final long MOST_NUMBERS = 1L << 48;

    private final MachineRecords records;
    private final Settings settings;
    private final Vault vault;
    private final Clock clock;
    private final Path file;
    private long number = NONE;
    private volatile boolean isRetired;

    ThisMachine(MachineRecords records, Settings settings, Vault vault, Clock clock) {
        this.records = records;
        this.settings = settings;
        this.vault = vault;
        this.clock = clock;
        this.file = settings.data().toAbsolutePath().resolve("machine");
    }

    @PostConstruct
    void join() throws IOException {
        Settings.Cluster wanted = settings.cluster();
        Optional<ClusterRecord> known = records.cluster();
        if (wanted.isOn()) {
            check(records.cluster(new ClusterRecord(wanted.name(), wanted.objects(), vault.keyHash())), wanted);
            number = drawnOnce();
            join(wanted.machine().isEmpty() ? host() : wanted.machine());
        } else if (known.isPresent()) { // what the others have written would seem to be lost
            throw new CannotStartException("These records are of the cluster "
                    + known.get().name() + ". Start with --cluster "
                    + known.get().name() + " --objects "
                    + known.get().objects() + ", or give another database.");
        }
    }

    private void check(ClusterRecord known, Settings.Cluster wanted) {
        if (!known.name().equals(wanted.name())) {
            throw new CannotStartException("These records are of the cluster " + known.name() + ", not " + wanted.name()
                    + ". Look at --cluster, or give another database.");
        }
        if (!known.objects().equals(wanted.objects())) {
            throw new CannotStartException("The machines of " + known.name() + " share what is in " + known.objects()
                    + ", not " + wanted.objects() + ". Give all of them the same --objects.");
        }
        if (!known.secretKeyHash().equals(vault.keyHash())) {
            throw new CannotStartException("The machines of " + known.name()
                    + " encrypt with another key. Copy the file secret-key from the data folder of one of them into "
                    + settings.data().toAbsolutePath() + ", before the first start there.");
        }
    }

    private void join(String name) {
        if (find().filter(MachineRecord::isRetired).isPresent()) {
            throw takenOut();
        }
        try {
            records.join(number, name, clock.instant());
        } catch (DuplicateKeyException e) {
            throw new CannotStartException("There is a machine " + name
                    + " in the cluster already. Name this one with --machine NAME; if the other is gone for good: oddbeacon machines retire "
                    + name);
        }
    }

    private Optional<MachineRecord> find() {
        return records.all().stream().filter(machine -> machine.id() == number).findFirst();
    }

    private CannotStartException takenOut() {
        return new CannotStartException(
                "This machine was taken out of the cluster. To have it join again as a new one, remove " + file + ".");
    }

    private long drawnOnce() throws IOException {
        if (Files.exists(file)) {
            String text = Files.readString(file).strip();
            if (text.equals(TAKEN_OUT)) {
                throw takenOut();
            }
            try {
                return Long.parseLong(text);
            } catch (NumberFormatException e) {
                throw new CannotStartException(
                        file + " does not hold the number of a machine. Remove it: this one joins as another.");
            }
        }
        long drawn = new SecureRandom().nextLong(1, MOST_NUMBERS);
        Files.createDirectories(file.getParent());
        Files.writeString(file, drawn + "\n");
        return drawn;
    }

    static String host() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException e) {
            return "localhost";
        }
    }

    /** Whether this machine is one of a cluster. */
    public boolean isOfCluster() {
        return number != NONE;
    }

    /** The number of this machine; 0 without a cluster. */
    public long number() {
        return number;
    }

    /** Whether it was taken out of the cluster, as was known a second ago. */
    public boolean isRetired() {
        return isRetired;
    }

    /** What the records say now; that it was taken out, it knows even when they have forgotten it. */
    void look() {
        boolean wasRetired = isRetired;
        isRetired = find().map(MachineRecord::isRetired).orElse(true);
        if (isRetired && !wasRetired) {
            try {
                Files.writeString(file, TAKEN_OUT + "\n");
            } catch (IOException e) {
                LOG.warn("That this machine was taken out could not be written into {}: {}", file, e.getMessage());
            }
        }
    }
}
