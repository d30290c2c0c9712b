package dev.oddbeacon.server.machines;

import dev.oddbeacon.api.Machines;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.MachineRecords;
import dev.oddbeacon.server.records.MachineRecords.Holdings;
import dev.oddbeacon.server.records.MachineRecords.MachineRecord;
import dev.oddbeacon.server.records.ProcessRecords.ProcessRecord;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.NotFoundException;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** The machines of the cluster, as people see them. */
@Component
public class MachineList {
    private final ThisMachine machine;
    private final MachineRecords records;
    private final Processes processes;
    private final Claims claims;
    private final Membership membership;
    private final Settings.Cluster settings;

    MachineList(
            ThisMachine machine,
            MachineRecords records,
            Processes processes,
            Claims claims,
            Membership membership,
            Settings settings) {
        this.machine = machine;
        this.records = records;
        this.processes = processes;
        this.claims = claims;
        this.membership = membership;
        this.settings = settings.cluster();
    }

    /** All of them; none with one machine alone. */
    Machines all() {
        if (!machine.isOfCluster()) {
            return new Machines("", "", List.of());
        }
        List<ProcessRecord> all = processes.all();
        Set<Long> living = processes.machines();
        Set<Long> reached = membership.reached();
        Set<Long> inCharge = claims.holders(Claims.Kind.CHARGE);
        Set<Long> machinesInCharge = all.stream()
                .filter(process -> inCharge.contains(process.id()))
                .map(ProcessRecord::machine)
                .collect(Collectors.toSet());
        return new Machines(
                settings.name(),
                settings.objects(),
                records.all().stream()
                        .map(one -> onTheWire(
                                one,
                                living.contains(one.id()),
                                machinesInCharge.contains(one.id()),
                                reached.contains(one.id())))
                        .toList());
    }

    /** Names of machines that do not live, and were not taken out. */
    public List<String> gone() {
        Set<Long> living = processes.machines();
        return records.all().stream()
                .filter(one -> !one.isRetired() && !living.contains(one.id()))
                .map(MachineRecord::name)
                .toList();
    }

    /** Machines that live, and that this one does not reach, with where it tries. */
    public List<String> unreached() {
        return membership.unreached().stream()
                .map(one -> one.name() + " at " + one.peerAddress())
                .toList();
    }

    private Machines.Machine onTheWire(MachineRecord one, boolean lives, boolean isInCharge, boolean isReached) {
        Holdings holdings = one.holdings();
        return new Machines.Machine(
                one.name(),
                one.address(),
                one.peerAddress(),
                isReached,
                state(one, lives),
                one.id() == machine.number(),
                isInCharge,
                one.joined(),
                holdings.files(),
                holdings.bytes(),
                holdings.missing(),
                holdings.brought(),
                holdings.mirrors(),
                holdings.mirrorsBehind());
    }

    private static String state(MachineRecord one, boolean lives) {
        if (!lives) {
            return "gone";
        }
        if (one.isRetired()) {
            return "leaving";
        }
        boolean isJoining = one.address().isEmpty() || one.holdings().missing() > 0;
        return isJoining ? "joining" : "serving";
    }

    /**
     * Takes a machine out.
     *
     * @throws NotFoundException if there is none of the name
     * @throws ConflictException if it is the last one
     */
    void retire(String name) {
        List<MachineRecord> all = records.all();
        if (all.stream().noneMatch(one -> one.name().equals(name))) {
            throw new NotFoundException("There is no machine " + name + ". GET /api/v1/machines lists all.");
        }
        if (all.stream().noneMatch(one -> !one.isRetired() && !one.name().equals(name))) {
            throw new ConflictException(name + " is the last machine of the cluster, and stays.");
        }
        records.retire(name);
    }
}
