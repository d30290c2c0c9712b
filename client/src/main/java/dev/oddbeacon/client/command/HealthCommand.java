package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Health;
import dev.oddbeacon.api.HealthReading;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.output.TextTable;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import java.util.stream.DoubleStream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "health",
        mixinStandardHelpOptions = true,
        description =
                "Shows how the service is, and what to do about what is not as it should be. For administrators.%n",
        footer = {"", "Exit status 4 if somebody should act.", "", "Example: oddbeacon health --over day"})
public final class HealthCommand implements Callable<Integer> {
    private enum Time {
        HOUR,
        DAY,
        MONTH;

        private String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    @Option(
            names = "--over",
            defaultValue = "hour",
            paramLabel = "TIME",
            description = "Beside what it is now, the worst over this time: hour, day or month (default: hour).")
    private Time over;

    @Mixin
    private SingleFormat format;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        Health health =
                service.get(Service.path("health"), new Service.Parameters().add("over", over.word()), Health.class);
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        if (format.isJson()) {
            terminal.json(health);
        } else {
            print(terminal, health);
        }
        boolean isForSomebody =
                health.findings().stream().anyMatch(finding -> finding.level().equals("act"));
        return isForSomebody ? ExitStatus.TO_ACT_ON : ExitStatus.FOUND;
    }

    private void print(Terminal terminal, Health health) {
        if (health.findings().isEmpty()) {
            terminal.line("All is well.");
        }
        for (Health.Finding finding : health.findings()) {
            boolean acts = finding.level().equals("act");
            terminal.line(terminal.styled(acts ? Terminal.Style.MATCH : Terminal.Style.QUIET, acts ? "ACT  " : "watch")
                    + "  " + Terminal.clean(finding.what()));
            terminal.line("       " + Terminal.clean(finding.advice()));
        }
        terminal.line("");
        List<HealthReading> past = new ArrayList<>(health.past());
        past.add(health.now());
        TextTable.print(
                terminal, List.of("FIGURE", "NOW", "OVER THE " + over.name()), rows(health.now(), past), Set.of(1, 2));
        if (health.processes().size() > 1) {
            terminal.line("");
            TextTable.print(
                    terminal,
                    List.of("PROCESS", "ON", "SINCE", "DUTIES", "HEAP", "OF"),
                    health.processes().stream().map(HealthCommand::row).toList(),
                    Set.of(0, 4, 5));
        }
    }

    private static List<String> row(Health.Worker process) {
        return List.of(
                String.valueOf(process.pid()),
                process.host(),
                process.started().truncatedTo(ChronoUnit.SECONDS).toString(),
                String.join(", ", process.duties()),
                Amounts.bytes(process.heapBytes()),
                Amounts.bytes(process.heapLimitBytes()));
    }

    private static List<List<String>> rows(HealthReading now, List<HealthReading> all) {
        Function<Double, String> number = value -> Amounts.number(Math.round(value));
        Function<Double, String> bytes = value -> Amounts.bytes(Math.round(value));
        return List.of(
                List.of(
                        "searches",
                        Amounts.number(now.searches()),
                        Amounts.number(
                                all.stream().mapToLong(HealthReading::searches).sum())),
                List.of("half of them in", millis(now.medianMillis()), most(all, HealthReading::medianMillis)),
                List.of("95 of 100 in", millis(now.slowMillis()), most(all, HealthReading::slowMillis)),
                List.of(
                        "failed",
                        Amounts.number(now.failedSearches()),
                        Amounts.number(all.stream()
                                .mapToLong(HealthReading::failedSearches)
                                .sum())),
                most("jobs waiting", now, all, HealthReading::waiting, number),
                most("repositories failing", now, all, HealthReading::failed, number),
                most("repositories behind", now, all, HealthReading::behind, number),
                most("segments", now, all, HealthReading::segments, number),
                most("index", now, all, HealthReading::indexBytes, bytes),
                List.of(
                        "disk free",
                        Amounts.bytes(now.freeBytes()),
                        Amounts.bytes(all.stream()
                                .mapToLong(HealthReading::freeBytes)
                                .min()
                                .orElse(0))),
                most("heap", now, all, HealthReading::heapBytes, bytes),
                List.of("heap may grow to", Amounts.bytes(now.heapLimitBytes()), ""),
                most("memory of its own", now, all, HealthReading::residentBytes, bytes),
                most("mappings", now, all, HealthReading::mappings, number),
                most("handles", now, all, HealthReading::handles, number),
                most("threads", now, all, HealthReading::threads, number));
    }

    private static List<String> most(
            String name,
            HealthReading now,
            List<HealthReading> all,
            ToDoubleFunction<HealthReading> figure,
            Function<Double, String> shown) {
        DoubleStream values = all.stream().mapToDouble(figure);
        return List.of(
                name,
                shown.apply(figure.applyAsDouble(now)),
                shown.apply(values.max().orElse(0)));
    }

    private static String most(List<HealthReading> all, Function<HealthReading, Double> figure) {
        return millis(all.stream()
                .map(figure)
                .filter(Objects::nonNull)
                .max(Double::compare)
                .orElse(null));
    }

    private static String millis(Double millis) {
        return millis == null ? "-" : String.format(Locale.ROOT, "%.1f ms", millis);
    }
}
