package dev.oddbeacon.agents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.api.LinesAnswer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Answers within a budget, read to their end. */
class SearchesTest {
    private static final Pattern MORE = Pattern.compile("go on with \"more\": \"([^\"]*)\"");

    /** A service that has lines of files, and tells so many on a page. */
    private static final class StandIn implements Asker {
        private final List<LinesAnswer.FileHits> files = new ArrayList<>();
        private final int onPage;

        StandIn(Random random, int lines) {
            this.onPage = 1 + random.nextInt(20);
            for (int i = 0; i < lines; i++) {
                LinesAnswer.Line line = new LinesAnswer.Line(
                        i + 1,
                        "tide ü " + "x".repeat(random.nextInt(200)),
                        0,
                        List.of(new LinesAnswer.Match(0, 4)),
                        false);
                files.add(new LinesAnswer.FileHits(
                        "tidewatch",
                        "main",
                        "c0ffee",
                        "file" + random.nextInt(3) + ".c",
                        "c",
                        List.of(),
                        1,
                        null,
                        List.of(new LinesAnswer.Excerpt(List.of(line), null))));
            }
        }

        @Override
        public <T> T get(Question question, Class<T> type) {
            String cursor = question.parameters().stream()
                    .filter(parameter -> parameter.name().equals("cursor"))
                    .map(Parameter::value)
                    .findFirst()
                    .orElse("0");
            int from = Integer.parseInt(cursor);
            int to = Math.min(files.size(), from + onPage);
            return type.cast(new LinesAnswer(
                    null,
                    new LinesAnswer.IndexState(true, 1, 0, 0, List.of()),
                    null,
                    new LinesAnswer.Counts(files.size(), 3, 1, true),
                    null,
                    files.subList(from, to),
                    to < files.size() ? String.valueOf(to) : null,
                    0,
                    null));
        }

        @Override
        public String console() {
            return "http://127.0.0.1:7420/";
        }
    }

    @RepeatedTest(60)
    void tellEveryResultOnceAndNeverMoreThanWasAskedFor(RepetitionInfo run) {
        Random random = new Random(run.getCurrentRepetition());
        StandIn service = new StandIn(random, random.nextInt(120));
        int tokens = Budget.LEAST + random.nextInt(2_000);
        List<Integer> told = new ArrayList<>();
        String more = "";
        do {
            Map<String, Object> arguments = new HashMap<>(Map.of("text", "tide", "tokens", tokens, "more", more));
            String text = new Searches(service).lines(Given.of(arguments));
            assertThat(text.getBytes(StandardCharsets.UTF_8).length).isLessThanOrEqualTo(tokens * 3);
            assertThat(text).startsWith(service.files.size() + " line");
            text.lines()
                    .filter(line -> line.startsWith("> "))
                    .forEach(line -> told.add(Integer.valueOf(line.substring(2, line.indexOf(':')))));
            Matcher matcher = MORE.matcher(text);
            more = matcher.find() ? matcher.group(1) : "";
        } while (!more.isEmpty());
        assertThat(told)
                .isEqualTo(service.files.stream()
                        .map(file ->
                                file.excerpts().getFirst().lines().getFirst().number())
                        .toList());
    }

    @Test
    void goOnOnlyFromWhatWasSaid() {
        StandIn service = new StandIn(new Random(1), 3);
        assertThatThrownBy(() -> new Searches(service).lines(Given.of(Map.of("text", "tide", "more", "somewhere"))))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("which no answer has said");
        assertThatThrownBy(() -> new Searches(service).lines(Given.of(Map.of())))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("The argument \"text\" is missing");
    }
}
