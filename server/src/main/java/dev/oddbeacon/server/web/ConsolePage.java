package dev.oddbeacon.server.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;

/**
 * The page of the console with a head that says what its address leads to, as Open Graph metadata: where a link to it is
 * posted, title and excerpt can be shown beside it.
 */
@Component
public class ConsolePage {
    private static final String TITLE = "<title>Odd Beacon</title>";
    private static final int LONGEST_TITLE = 200; // characters
    private static final int LONGEST_EXCERPT = 1_000; // characters

    private final String page;

    /** What an address leads to. */
    public record About(String title, String excerpt) {}

    ConsolePage() {
        try {
            this.page = new ClassPathResource("static/index.html").getContentAsString(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("The console is not part of this build", e);
        }
    }

    /**
     * The page, as whoever asks for it may see it.
     *
     * @param about what it is about; where that fails, or is not for who asks, the page is the same as of any address, and
     *     says by itself what is wrong
     */
    public ResponseEntity<String> about(Callable<About> about) {
        return ResponseEntity.ok()
                .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                .cacheControl(CacheControl.noStore())
                .body(known(about).map(this::with).orElse(page));
    }

    private static Optional<About> known(Callable<About> about) {
        try {
            return Optional.of(about.call());
        } catch (Exception _) {
            return Optional.empty();
        }
    }

    private String with(About about) {
        String title = plain(about.title(), LONGEST_TITLE);
        String excerpt = plain(about.excerpt(), LONGEST_EXCERPT);
        return page.replace(TITLE, """
                <title>%1$s · Odd Beacon</title>
                    <meta property="og:site_name" content="Odd Beacon" />
                    <meta property="og:type" content="website" />
                    <meta property="og:title" content="%1$s" />
                    <meta property="og:description" content="%2$s" />
                    <meta name="description" content="%2$s" />""".formatted(title, excerpt));
    }

    /** Text as an attribute has it, without what would hide or turn around a part of it. */
    private static String plain(String text, int longest) {
        StringBuilder plain = new StringBuilder();
        text.codePoints().limit(longest).forEach(letter -> {
            if (letter == '\n'
                    || letter == '\t'
                    || !Character.isISOControl(letter) && Character.getType(letter) != Character.FORMAT) {
                plain.appendCodePoint(letter);
            }
        });
        return HtmlUtils.htmlEscape(plain.toString(), StandardCharsets.UTF_8.name());
    }
}
