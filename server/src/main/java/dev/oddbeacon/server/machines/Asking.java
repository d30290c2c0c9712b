package dev.oddbeacon.server.machines;

import com.hazelcast.cluster.Member;
import com.hazelcast.core.MemberLeftException;
import dev.oddbeacon.server.machines.Request.Answer;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.secrets.Vault;
import jakarta.servlet.http.HttpServletRequest;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Collectors;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Asks other machines what a caller asks this one. What goes back and forth is encrypted. */
@Component
class Asking {
    private static final List<String> PASSED_ON =
            List.of(HttpHeaders.AUTHORIZATION, HttpHeaders.COOKIE, HttpHeaders.ACCEPT);

    private final Membership membership;
    private final Vault vault;
    private final JsonMapper json;

    Asking(Membership membership, Vault vault, JsonMapper json) {
        this.membership = membership;
        this.vault = vault;
        this.json = json;
    }

    /** A machine is gone, does not answer, or not in time. */
    static final class NoAnswerException extends Exception {
        private static final long serialVersionUID = 1;

        private final boolean isGone;

        NoAnswerException(String message, boolean isGone) {
            super(message);
            this.isGone = isGone;
        }

        /** Whether the machine is none of the cluster any more. */
        boolean isGone() {
            return isGone;
        }
    }

    /** What was asked. */
    final class Asked {
        private final String id;
        private final Future<byte[]> answer;

        private Asked(String id, Future<byte[]> answer) {
            this.id = id;
            this.answer = answer;
        }

        /** Waits for the answer. @param most how long; it is not wanted any more after that */
        Answer await(Duration most) throws NoAnswerException {
            try {
                return vault.decrypt(Request.answerPurpose(id), answer.get(most.toNanos(), TimeUnit.NANOSECONDS))
                        .map(text -> json.readValue(text, Answer.class))
                        .orElseThrow(() -> new NoAnswerException("not from a machine of this cluster", false));
            } catch (ExecutionException e) {
                throw new NoAnswerException(
                        String.valueOf(e.getMessage()), e.getCause() instanceof MemberLeftException);
            } catch (TimeoutException e) {
                throw new NoAnswerException("not within " + most.toMillis() + " ms", false);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new NoAnswerException("this machine is ending", false);
            }
        }
    }

    /**
     * Asks what a request asks.
     *
     * @param path of the HTTP interface
     * @param more parameters besides those of the request
     */
    Asked ask(Member other, HttpServletRequest request, String path, Map<String, String> more)
            throws NoAnswerException {
        Map<String, String[]> parameters = new LinkedHashMap<>(request.getParameterMap());
        more.forEach((name, value) -> parameters.put(name, new String[] {value}));
        Request passed = new Request(
                Secrets.random(),
                path,
                form(parameters),
                headers(request),
                request.getRemoteAddr(),
                request.isSecure());
        try {
            byte[] encrypted =
                    vault.encrypt(Request.purpose(Membership.machine(other)), json.writeValueAsString(passed));
            return new Asked(passed.id(), membership.ask(other, new Question(encrypted)));
        } catch (RejectedExecutionException e) {
            throw new NoAnswerException(String.valueOf(e.getMessage()), false);
        }
    }

    private static String form(Map<String, String[]> parameters) {
        return parameters.entrySet().stream()
                .flatMap(parameter -> Arrays.stream(parameter.getValue())
                        .map(value -> encoded(parameter.getKey()) + "=" + encoded(value)))
                .collect(Collectors.joining("&"));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private static Map<String, String> headers(HttpServletRequest request) {
        Map<String, String> headers = new LinkedHashMap<>();
        for (String name : PASSED_ON) {
            Optional.ofNullable(request.getHeader(name)).ifPresent(value -> headers.put(name, value));
        }
        return headers;
    }
}
