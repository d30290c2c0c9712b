package dev.oddbeacon.server.machines;

import com.hazelcast.cluster.Member;
import com.hazelcast.core.MemberLeftException;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.index.KeptViews;
import dev.oddbeacon.server.machines.Request.Answer;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.secrets.Vault;
import dev.oddbeacon.server.web.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.util.ServletRequestPathUtils;
import tools.jackson.databind.json.JsonMapper;

/**
 * The next page of a search that another machine began: that one keeps the view of it, and is asked. So a caller may
 * send each request to another machine.
 */
@Component
class PagesElsewhere implements HandlerInterceptor, WebMvcConfigurer {
    private static final Logger LOG = LoggerFactory.getLogger(PagesElsewhere.class);
    private static final Duration GRACE = Duration.ofSeconds(10); // beyond what a search may take
    private static final List<String> PASSED_ON =
            List.of(HttpHeaders.AUTHORIZATION, HttpHeaders.COOKIE, HttpHeaders.ACCEPT);

    private final Membership membership;
    private final KeptViews views;
    private final InnerDoor door;
    private final Vault vault;
    private final JsonMapper json;
    private final Duration longest;

    PagesElsewhere(
            Membership membership, KeptViews views, InnerDoor door, Vault vault, JsonMapper json, Settings settings) {
        this.membership = membership;
        this.views = views;
        this.door = door;
        this.vault = vault;
        this.json = json;
        this.longest = settings.searchTime().plus(GRACE);
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/v1/search/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler)
            throws IOException {
        OptionalLong lineage = Cursor.lineage(request.getParameter("cursor"));
        if (lineage.isEmpty() || lineage.getAsLong() == views.lineage() || door.isOf(request)) {
            return true;
        }
        Optional<Member> keeper = membership.ofLineage(lineage.getAsLong());
        return keeper.isEmpty() || !isAnsweredBy(keeper.get(), request, response);
    }

    /** @return false if that member is gone, and the view with it */
    private boolean isAnsweredBy(Member keeper, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        Request passed = new Request(
                Secrets.random(),
                ServletRequestPathUtils.getParsedRequestPath(request).value(),
                form(request.getParameterMap()),
                headers(request),
                request.getRemoteAddr(),
                request.isSecure());
        try {
            Future<byte[]> asked = membership.ask(
                    keeper,
                    new Question(vault.encrypt(
                            Request.purpose(Membership.machine(keeper)), json.writeValueAsString(passed))));
            Answer answer = vault.decrypt(
                            Request.answerPurpose(passed.id()), asked.get(longest.toMillis(), TimeUnit.MILLISECONDS))
                    .map(text -> json.readValue(text, Answer.class))
                    .orElseThrow(() -> new ExecutionException("not from a machine of this cluster", null));
            answer.headers().forEach(response::setHeader);
            response.setStatus(answer.status());
            response.getOutputStream().write(answer.body().getBytes(StandardCharsets.UTF_8));
            return true;
        } catch (ExecutionException e) {
            if (e.getCause() instanceof MemberLeftException) {
                return false;
            }
            LOG.warn("The next page of a search was not got from another machine: {}", e.getMessage());
        } catch (TimeoutException | RejectedExecutionException e) {
            LOG.info("The next page of a search was not got from another machine: {}", e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        response.setHeader(HttpHeaders.RETRY_AFTER, "1");
        Refusal.write(
                response,
                HttpStatus.SERVICE_UNAVAILABLE,
                "The machine that began this search does not answer now. Try again, or search again from the start.");
        return true;
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
