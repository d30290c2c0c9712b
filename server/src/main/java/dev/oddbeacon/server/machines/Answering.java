package dev.oddbeacon.server.machines;

import dev.oddbeacon.server.machines.Request.Answer;
import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.secrets.Vault;
import java.io.IOException;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * Answers what other machines ask. It is asked through this machine's own HTTP interface, as the caller: what that may
 * not see, it does not get here either, whoever passes the question on.
 */
@Component
class Answering {
    private final ThisMachine machine;
    private final InnerDoor door;
    private final Vault vault;
    private final JsonMapper json;

    Answering(ThisMachine machine, InnerDoor door, Vault vault, JsonMapper json) {
        this.machine = machine;
        this.door = door;
        this.vault = vault;
        this.json = json;
    }

    /**
     * Answers a question.
     *
     * @param encrypted a {@link Request}
     * @return an {@link Answer}, encrypted
     * @throws IllegalArgumentException if it does not come from a machine of this cluster
     */
    byte[] answer(byte[] encrypted) {
        Request request = vault.decrypt(Request.purpose(machine.number()), encrypted)
                .map(text -> json.readValue(text, Request.class))
                .orElseThrow(() -> new IllegalArgumentException("not from a machine of this cluster"));
        try {
            Answer answer = door.ask(request);
            return vault.encrypt(Request.answerPurpose(request.id()), json.writeValueAsString(answer));
        } catch (IOException e) {
            throw new IllegalStateException("this machine does not answer: " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("this machine is ending");
        }
    }
}
