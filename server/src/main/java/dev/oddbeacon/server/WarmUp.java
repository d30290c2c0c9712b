package dev.oddbeacon.server;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Asks the service a few things itself, right after its start. Code that has not run yet runs slowly: the first search
 * of a person took most of a second, and takes a few milliseconds after this.
 */
@Component
public class WarmUp {
    private static final Logger LOG = LoggerFactory.getLogger(WarmUp.class);
    private static final List<String> SEARCHES = List.of(
            "q=return&order=relevance",
            "q=the+first&word=true&order=relevance",
            "q=e&case=match",
            "q=" + encoded("a[a-z]*e\\b") + "&reading=regex",
            "q=zq+no+hit",
            "reading=expression&q=" + encoded("near(3, the, a) or line(return, if) not like(retrun) under(src)"),
            "q=the&order=relevance&word=true",
            "reading=expression&typing=true&q=" + encoded("the and (not re*"),
            "q=if&only=counts");
    private static final List<String> SECOND_LOOKS = List.of("q=zq+no+hit&word=true&case=match", "q=the+retrun");
    private static final List<String> SYMBOLS = List.of(
            "q=get",
            "q=read&role=use",
            "q=read&reading=plain&role=any",
            "q=set+value",
            "reading=glob&q=is*&kind=method",
            "reading=expression&q=like(reed)+type(j*)");
    private static final List<String> COMMITS = List.of(
            "q=the",
            "adds=return&by=a",
            "touches=*.md&after=2020",
            "reading=expression&q=" + encoded("says(/fix|add/) not removes(if)"));
    private static final int ROUNDS = 12;
    private static final Duration LONGEST = Duration.ofSeconds(15); // of a large index, which has more to do than this

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    /** The trace that its requests belong to, which nobody else knows: they are no searches of anybody. */
    private static final String TRACE = UUID.randomUUID().toString().replace("-", "");

    private final boolean isWanted;

    WarmUp(Settings settings) {
        this.isWanted = settings.warmUp();
    }

    /** Whether a request is of the warm-up, by the id of its trace. */
    public static boolean hasTrace(String id) {
        return id.equals(TRACE);
    }

    @EventListener
    void start(ApplicationReadyEvent event) {
        if (!isWanted) {
            return;
        }
        String address = "http://127.0.0.1:"
                + event.getApplicationContext().getEnvironment().getProperty("local.server.port") + "/api/v1/";
        Thread.ofVirtual().name("warm-up").start(() -> {
            try {
                List<String> questions = questions();
                long end = System.nanoTime() + LONGEST.toNanos();
                for (int i = 0; i < ROUNDS * questions.size() && System.nanoTime() < end; i++) {
                    get(address + questions.get(i % questions.size()));
                }
            } catch (IOException e) {
                LOG.debug("The warm-up ended early", e);
            }
        });
    }

    private static List<String> questions() {
        List<String> questions = new ArrayList<>();
        for (String search : SEARCHES) {
            questions.add("search/lines?" + search);
            questions.add("search/files?"
                    + search.replaceFirst("reading=[^&]*&(typing=true&)?", "").replaceFirst("&.*", ""));
        }
        SYMBOLS.forEach(symbols -> questions.add("search/symbols?" + symbols));
        COMMITS.forEach(commits -> questions.add("search/commits?" + commits));
        questions.add("search/lines/over-time?q=return");
        SECOND_LOOKS.forEach(looks -> questions.add("search/lines/second-looks?" + looks));
        questions.add("repositories");
        return questions;
    }

    private static void get(String address) throws IOException {
        HttpURLConnection connection =
                (HttpURLConnection) URI.create(address).toURL().openConnection();
        connection.setRequestProperty("traceparent", "00-" + TRACE + "-" + TRACE.substring(0, 16) + "-00");
        try (InputStream in = connection.getInputStream()) {
            in.transferTo(OutputStream.nullOutputStream());
        }
    }
}
