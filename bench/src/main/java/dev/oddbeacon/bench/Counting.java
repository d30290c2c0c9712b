package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Every line counted, beside grep on the same tree in the same run. */
final class Counting {
    private static final int TEXTS = 500;
    /** For fixed texts grep takes nearly the same time whatever the text; it is timed on every so many. */
    private static final int TIMED = 25;

    private static final List<String> REGEXES = List.of(
            "[0-9]{4}px",
            "[A-Z]{5,}_[0-9]+",
            "\\w+\\s+\\w+\\(\\)",
            "[a-z]+[0-9]+[a-z]+[0-9]+",
            "^\\s*$",
            ".*x.*y.*z",
            "[aeiou]{4}",
            "0x[0-9a-f]{9,12}\\b",
            "[^ -~\\t]",
            "\\b[a-z]{17,20}\\b",
            "^[a-z]+:$",
            "[0-9]+\\.[0-9]+\\.[0-9]+",
            "\\([a-z]\\)",
            "[A-Z][a-z]+[A-Z][a-z]+[A-Z]",
            "\\s+$",
            "^\\S{60,}$",
            "[0-9]{10,}",
            "(\\w)+(\\d)\\b;",
            "[xyz][0-9][xyz]",
            "^.{120,}$");

    private Counting() {}

    static void measure(Running service, Path source, Table table) throws IOException, InterruptedException {
        Command.seconds(
                source,
                "grep",
                "-rc",
                "--exclude-dir=.git",
                "-e",
                "x",
                "."); // once, so that grep finds its files in memory
        literals(service, source, table);
        regexes(service, source, table);
    }

    private static void literals(Running service, Path source, Table table) throws IOException, InterruptedException {
        List<String> texts = new Words(source).texts(TEXTS);
        Figures reference = new Figures();
        for (int i = 0; i < texts.size(); i += TIMED) {
            reference.add(grep(source, "-F", texts.get(i)));
        }
        Figures ours = new Figures();
        for (String text : texts) {
            ours.add(counted(service, text, "plain", Indexing.SCOPE));
        }
        double median = reference.at(0.5) / ours.at(0.5);
        double slowest = reference.at(0.5) / ours.at(0.99);
        table.target(
                "every line counted, 500 texts drawn from the source",
                "median 3 ms, 99th percentile 80 ms",
                ours.at(0.5) <= 3 && ours.at(0.99) <= 80,
                "median %.1f ms, 99th percentile %.0f ms; grep -rFc %.0f ms: %.0f and %.1f times",
                ours.at(0.5),
                ours.at(0.99),
                reference.at(0.5),
                median,
                slowest);
        table.waited("every line counted", ours);
    }

    private static void regexes(Running service, Path source, Table table) throws IOException, InterruptedException {
        Figures ratios = new Figures();
        List<Double> times = new ArrayList<>();
        for (String regex : REGEXES) {
            double ours = counted(service, regex, "regex", Indexing.SCOPE);
            double reference = grep(
                    source,
                    "-E",
                    regex.replace("\\s", "[[:space:]]")
                            .replace("\\S", "[^[:space:]]")
                            .replace("\\d", "[0-9]")
                            .replace("[^ -~\\t]", "[^ -~\t]"));
            ratios.add(reference / ours);
            times.add(reference / ours);
            table.note("`" + regex + "`", "%.0f ms; grep -rEc %.0f ms: %.1f times", ours, reference, reference / ours);
        }
        table.target(
                "20 regular expressions without a usable literal, counted",
                "10 times grep -rEc in the median, least 3",
                ratios.at(0.5) >= 10 && ratios.at(0) >= 3,
                "%.1f times in the median, least %.1f",
                ratios.at(0.5),
                ratios.at(0));
        table.compared("Regular expressions, every line counted", "times as fast as grep -rEc", REGEXES, times);
    }

    /** Milliseconds for counting every line. @param scope parameters that say where to look */
    static double counted(Running service, String text, String reading, String scope)
            throws IOException, InterruptedException {
        String parameters = Running.parameter("q", text) + "&reading=" + reading + "&case=match&only=counts" + scope;
        service.search(parameters); // once, to have its part of the index in memory: grep has the same advantage
        return service.search(parameters).tookMillis();
    }

    private static double grep(Path source, String flag, String text) throws IOException, InterruptedException {
        return 1_000
                * Command.seconds(
                        source, "env", "LC_ALL=C", "grep", "-r", flag, "-c", "--exclude-dir=.git", "-e", text, ".");
    }
}
