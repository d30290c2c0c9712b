package dev.oddbeacon.client.output;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** A manual page, from what {@code --help} is made of, in the language of man(7). */
public final class ManPage {
    private final StringBuilder page = new StringBuilder();

    private ManPage() {}

    public static String of(CommandLine line) {
        ManPage page = new ManPage();
        page.write(line.getCommandSpec());
        return page.page.toString();
    }

    /** How the page is called, without its section: {@code oddbeacon-searches-check}. */
    public static String name(CommandLine line) {
        return line.getCommandSpec().qualifiedName("-");
    }

    private void write(CommandSpec command) {
        String name = name(command.commandLine());
        String about = String.join(" ", command.usageMessage().description())
                .replace("%n", "")
                .strip();
        request(
                "TH",
                name.toUpperCase(Locale.ROOT),
                "1",
                "",
                "Odd Beacon " + Terminal.version().orElse(""));
        request("SH", "NAME");
        text(name + " - " + about);
        request("SH", "SYNOPSIS");
        text(command.commandLine().getHelp().synopsis(0).strip().replaceAll("\\s+", " "));
        if (!command.positionalParameters().isEmpty()) {
            request("SH", "ARGUMENTS");
            for (PositionalParamSpec argument : command.positionalParameters()) {
                entry(argument.paramLabel(), String.join(" ", argument.description()));
            }
        }
        request("SH", "OPTIONS");
        for (OptionSpec option : command.options()) {
            if (!option.hidden()) {
                String value = option.arity().max() > 0 ? " " + option.paramLabel() : "";
                entry(
                        Arrays.stream(option.names()).collect(Collectors.joining(", ")) + value,
                        String.join(" ", option.description()));
            }
        }
        if (!command.subcommands().isEmpty()) {
            request("SH", "COMMANDS");
            command.subcommands().values().stream()
                    .map(CommandLine::getCommandSpec)
                    .filter(one -> !one.usageMessage().hidden())
                    .forEach(one -> entry(
                            one.name(),
                            String.join(" ", one.usageMessage().description())
                                    .replace("%n", "")
                                    .strip()));
        }
        if (command.usageMessage().footer().length > 0) {
            request("SH", "NOTES");
            request("nf");
            Arrays.stream(command.usageMessage().footer()).skip(1).forEach(this::text);
            request("fi");
        }
    }

    private void entry(String term, String description) {
        request("TP");
        page.append("\\fB").append(escaped(term)).append("\\fR\n");
        text(description);
    }

    private void request(String name, String... arguments) {
        page.append('.').append(name);
        for (String argument : arguments) {
            page.append(" \"").append(escaped(argument).replace("\"", "\\(dq")).append('"');
        }
        page.append('\n');
    }

    /** A line of text, none of which is a request. */
    private void text(String text) {
        page.append(text.startsWith(".") || text.startsWith("'") ? "\\&" : "")
                .append(escaped(text))
                .append('\n');
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\e").replace("-", "\\-");
    }
}
