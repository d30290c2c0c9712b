package dev.oddbeacon.server.machines;

import dev.oddbeacon.server.AddressFile;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.index.Holdings;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.MachineRecords;
import dev.oddbeacon.server.records.MachineRecords.MachineRecord;
import java.time.Duration;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.SmartLifecycle;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Tells the other machines what this one holds, and forgets those that were taken out and have ended. */
@Component
class MachineUpkeep implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(MachineUpkeep.class);
    private static final Duration ROUND = Duration.ofSeconds(5);

    private final ThisMachine machine;
    private final MachineRecords records;
    private final Processes processes;
    private final Charge charge;
    private final Holdings holdings;
    private final Membership membership;
    private final Rounds rounds = new Rounds("machines", ROUND, this::round);
    private final Settings settings;
    private volatile String address = "";

    MachineUpkeep(
            ThisMachine machine,
            MachineRecords records,
            Processes processes,
            Charge charge,
            Holdings holdings,
            Membership membership,
            Settings settings) {
        this.settings = settings;
        this.machine = machine;
        this.records = records;
        this.processes = processes;
        this.charge = charge;
        this.holdings = holdings;
        this.membership = membership;
    }

    @EventListener
    void answers(ApplicationReadyEvent event) {
        address = AddressFile.address(
                event.getApplicationContext().getEnvironment(), settings.names(), settings.listen());
    }

    @Override
    public void start() {
        if (machine.isOfCluster()) {
            rounds.start();
        }
    }

    private void round() {
        try {
            records.tell(machine.number(), address, holdings.now());
            membership.look();
            if (charge.isOurs()) {
                Set<Long> living = processes.machines();
                records.all().stream()
                        .filter(other -> other.isRetired() && !living.contains(other.id()))
                        .map(MachineRecord::id)
                        .forEach(records::remove);
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("What this machine holds is told later", e);
        } catch (RuntimeException e) {
            LOG.warn("Telling what this machine holds failed", e);
        }
    }

    @Override
    public void stop() {
        rounds.stop();
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
