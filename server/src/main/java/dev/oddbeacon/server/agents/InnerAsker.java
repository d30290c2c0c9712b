package dev.oddbeacon.server.agents;

import dev.oddbeacon.agents.Asker;
import dev.oddbeacon.agents.RefusedException;
import dev.oddbeacon.api.Problem;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Enumeration;
import java.util.stream.Collectors;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Asks the HTTP interface from within a request, on its thread and as its caller: what that may not see, no tool sees.
 */
final class InnerAsker implements Asker {
    private final HttpServletRequest request;
    private final HttpServletResponse response;
    private final JsonMapper json;

    InnerAsker(HttpServletRequest request, HttpServletResponse response, JsonMapper json) {
        this.request = request;
        this.response = response;
        this.json = json;
    }

    @Override
    public <T> T get(Question question, Class<T> type) {
        String parameters = question.parameters().stream()
                .map(parameter -> encoded(parameter.name()) + "=" + encoded(parameter.value()))
                .collect(Collectors.joining("&"));
        String address = "/api/v1/" + question.path() + (parameters.isEmpty() ? "" : "?" + parameters);
        KeptAnswer kept = new KeptAnswer(response);
        try {
            request.getRequestDispatcher(address).include(new Inner(request), kept);
            if (kept.getStatus() >= HttpServletResponse.SC_BAD_REQUEST) {
                throw new RefusedException(
                        json.readValue(kept.body(), Problem.class).detail());
            }
            return json.readValue(kept.body(), type);
        } catch (IOException | ServletException | JacksonException e) {
            throw new RefusedException("The service failed at this: " + e.getMessage());
        }
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    @Override
    public String console() {
        String address = request.getRequestURL().toString();
        return address.substring(0, address.length() - request.getRequestURI().length() + 1);
    }

    /** A plain reading request in the place of the agent's. */
    private static final class Inner extends HttpServletRequestWrapper {
        Inner(HttpServletRequest request) {
            super(request);
        }

        @Override
        public String getMethod() {
            return "GET";
        }

        @Override
        public String getContentType() {
            return null;
        }

        @Override
        public String getHeader(String name) {
            return isOfBody(name)
                    ? null
                    : name.equalsIgnoreCase(HttpHeaders.ACCEPT)
                            ? MediaType.APPLICATION_JSON_VALUE
                            : super.getHeader(name);
        }

        @Override
        public Enumeration<String> getHeaders(String name) {
            String value = getHeader(name);
            return value == null
                    ? Collections.emptyEnumeration()
                    : Collections.enumeration(Collections.singleton(value));
        }

        private static boolean isOfBody(String name) {
            return name.equalsIgnoreCase(HttpHeaders.CONTENT_TYPE) || name.equalsIgnoreCase(HttpHeaders.CONTENT_LENGTH);
        }
    }
}
