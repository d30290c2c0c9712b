package dev.oddbeacon.server.following;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * {@code /api/v1/hooks/push}: whoever keeps repositories tells of a push. What is answered is the same whether a
 * repository is registered or not.
 */
@RestController
@RequestMapping("/api/v1/hooks")
class HooksController {
    private final Settings.Hooks settings;
    private final Pushes pushes;

    HooksController(Settings settings, Pushes pushes) {
        this.settings = settings.hooks();
        this.pushes = pushes;
    }

    /** @param message any JSON that holds the address of the repository somewhere */
    @PostMapping(path = "/push", consumes = MediaType.APPLICATION_JSON_VALUE)
    void push(HttpServletRequest request, HttpServletResponse response, @RequestBody byte[] message)
            throws IOException {
        if (settings.secret().isEmpty()) {
            Refusal.write(
                    response,
                    HttpStatus.UNAUTHORIZED,
                    "No messages about pushes are taken. Set oddbeacon.hooks.secret, and sign them with it.");
            return;
        }
        Optional<String> signature = Optional.ofNullable(request.getHeader(settings.header()));
        if (!new Signature(settings.secret()).isOf(message, signature.orElse(""))) {
            Refusal.write(
                    response,
                    HttpStatus.UNAUTHORIZED,
                    "The signature is not that of this message. Send sha256= and the HMAC-SHA256 of the body, by the secret of oddbeacon.hooks.secret, in the header "
                            + settings.header() + ".");
            return;
        }
        Set<String> texts = PushMessage.texts(message)
                .orElseThrow(() -> new BadRequestException(
                        "The message is not JSON. Send an object that holds the address of the repository."));
        pushes.told(texts);
        response.setStatus(HttpStatus.ACCEPTED.value());
    }
}
