package dev.oddbeacon.server.machines;

import com.hazelcast.cluster.Member;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.index.KeptViews;
import dev.oddbeacon.server.machines.Asking.NoAnswerException;
import dev.oddbeacon.server.machines.Request.Answer;
import dev.oddbeacon.server.web.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.util.ServletRequestPathUtils;

/**
 * The next page of a search that another machine began: that one keeps the view of it, and is asked. So a caller may
 * send each request to another machine.
 */
@Component
class PagesElsewhere implements HandlerInterceptor, WebMvcConfigurer {
    private static final Logger LOG = LoggerFactory.getLogger(PagesElsewhere.class);
    private static final Duration GRACE = Duration.ofSeconds(10); // beyond what a search may take

    private final Membership membership;
    private final KeptViews views;
    private final InnerDoor door;
    private final Asking asking;
    private final Duration longest;

    PagesElsewhere(Membership membership, KeptViews views, InnerDoor door, Asking asking, Settings settings) {
        this.membership = membership;
        this.views = views;
        this.door = door;
        this.asking = asking;
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
        String path = ServletRequestPathUtils.getParsedRequestPath(request).value();
        try {
            Answer answer = asking.ask(keeper, request, path, Map.of()).await(longest);
            answer.headers().forEach(response::setHeader);
            response.setStatus(answer.status());
            response.getOutputStream().write(answer.body().getBytes(StandardCharsets.UTF_8));
            return true;
        } catch (NoAnswerException e) {
            if (e.isGone()) {
                return false;
            }
            LOG.info("The next page of a search was not got from another machine: {}", e.getMessage());
        }
        response.setHeader(HttpHeaders.RETRY_AFTER, "1");
        Refusal.write(
                response,
                HttpStatus.SERVICE_UNAVAILABLE,
                "The machine that began this search does not answer now. Try again, or search again from the start.");
        return true;
    }
}
