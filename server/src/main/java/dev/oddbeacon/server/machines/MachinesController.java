package dev.oddbeacon.server.machines;

import dev.oddbeacon.api.Machines;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import io.swagger.v3.oas.annotations.Operation;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/machines}: the machines of a cluster, for whoever keeps it. */
@RestController
@RequestMapping("/api/v1/machines")
class MachinesController {
    private final MachineList machines;
    private final ChangeLog log;

    MachinesController(MachineList machines, ChangeLog log) {
        this.machines = machines;
        this.log = log;
    }

    @Operation(summary = "The machines of the cluster, and what each holds")
    @GetMapping
    Machines all() {
        return machines.all();
    }

    @Operation(
            summary = "Takes a machine out of the cluster",
            description =
                    "It begins nothing more, and can be stopped once it has ended what it was doing. One that is gone is forgotten.")
    @PostMapping("/{name}/retire")
    Machines retire(Caller caller, @PathVariable String name) {
        machines.retire(name);
        log.add(caller, "machine-retired", name);
        return machines.all();
    }
}
