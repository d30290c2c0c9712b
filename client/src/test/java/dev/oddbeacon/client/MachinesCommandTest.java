package dev.oddbeacon.client;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.Machines;
import dev.oddbeacon.api.Machines.Machine;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class MachinesCommandTest {
    private StandIn service;

    @BeforeEach
    void start() throws IOException {
        service = new StandIn();
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private static Machine machine(String name, String state, boolean isAnswering) {
        return new Machine(
                name,
                isAnswering ? "http://" + name + ":7420/" : "",
                isAnswering ? name + ":7441" : "",
                isAnswering,
                state,
                isAnswering,
                isAnswering,
                Instant.parse("2026-04-01T05:00:00Z"),
                1_200,
                3_000_000_000L,
                state.equals("joining") ? 17 : 0,
                0,
                7,
                0);
    }

    private static Machines cluster(Machine... machines) {
        return new Machines("ferries", "s3://ferries/index", List.of(machines));
    }

    @Test
    void listsWhatEachHoldsAndLacks() {
        service.answers("machines", _ -> cluster(machine("keel", "joining", false), machine("lamp", "serving", true)));
        ClientRun run = ClientRun.of(service.url(), "machines", "list");
        assertThat(run.status()).isZero();
        assertThat(run.out().lines())
                .anyMatch(line -> line.equals("ferries shares s3://ferries/index"))
                .anyMatch(line -> line.matches("keel +joining +- +1,200 +3.0 GB +17 +7 +0"))
                .anyMatch(line -> line.matches("lamp +\\*! +serving +http://lamp:7420/ .*"));
    }

    @Test
    void oneThatIsGoneIsForSomebodyToActOn() {
        service.answers("machines", _ -> cluster(machine("keel", "gone", false), machine("lamp", "serving", true)));
        assertThat(ClientRun.of(service.url(), "machines", "list", "--format", "jsonl")
                        .status())
                .isEqualTo(4);
    }

    @Test
    void oneThatIsNotReachedIsForSomebodyToActOn() {
        service.answers("machines", _ -> cluster(machine("keel", "serving", false), machine("lamp", "serving", true)));
        ClientRun run = ClientRun.of(service.url(), "machines", "list");
        assertThat(run.status()).isEqualTo(4);
        assertThat(run.out().lines()).anyMatch(line -> line.matches("keel +\\? +serving .*"));
    }

    @Test
    void oneMachineIsNoCluster() {
        service.answers("machines", _ -> new Machines("", "", List.of()));
        ClientRun run = ClientRun.of(service.url(), "machines", "list");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.err()).contains("one machine, not a cluster");
    }

    @Test
    void takesOneOut() {
        service.answers(
                "machines/keel/retire",
                _ -> cluster(machine("keel", "leaving", false), machine("lamp", "serving", true)));
        ClientRun run = ClientRun.of(service.url(), "machines", "retire", "keel");
        assertThat(run.status()).isZero();
        assertThat(run.err()).contains("keel begins nothing more");
        assertThat(service.requests().getFirst().method()).isEqualTo("POST");
        service.answers("machines/keel/retire", _ -> cluster(machine("lamp", "serving", true)));
        assertThat(ClientRun.of(service.url(), "machines", "retire", "keel").err())
                .contains("is forgotten");
    }
}
