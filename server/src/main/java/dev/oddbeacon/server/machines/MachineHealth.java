package dev.oddbeacon.server.machines;

import dev.oddbeacon.server.processes.ThisMachine;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.stereotype.Component;

/** Tells whatever spreads requests over several machines not to send any here, once this one is being taken out. */
@Component
class MachineHealth implements HealthIndicator {
    private final ThisMachine machine;

    MachineHealth(ThisMachine machine) {
        this.machine = machine;
    }

    @Override
    public Health health() {
        return (machine.isRetired() ? Health.outOfService() : Health.up()).build();
    }
}
