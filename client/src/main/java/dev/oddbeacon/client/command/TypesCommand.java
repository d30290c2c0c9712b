package dev.oddbeacon.client.command;

import dev.oddbeacon.api.TypesAndTraits;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "types",
        mixinStandardHelpOptions = true,
        description = "Lists the types and traits that files can have, as --type and --trait take them.%n",
        footer = {"", "Example: oddbeacon types"})
public final class TypesCommand implements Callable<Integer> {
    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    /**
     * A type or a trait.
     *
     * @param kind type or trait
     * @param files what a type is recognised by: names of files
     * @param interpreters what a type is recognised by: interpreters that the first line may name
     * @param meaning of a trait, or the title of a type
     */
    private record Entry(String kind, String name, List<String> files, List<String> interpreters, String meaning) {}

    private static final Columns<Entry> COLUMNS = new Columns<Entry>()
            .add("kind", Entry::kind)
            .add("name", Entry::name)
            .add("files", entry -> String.join(" ", entry.files))
            .add("interpreters", entry -> String.join(" ", entry.interpreters))
            .add("meaning", Entry::meaning);

    @Override
    public Integer call() {
        TypesAndTraits all = service.get(Service.path("types"), new Service.Parameters(), TypesAndTraits.class);
        ResultPrinter<Entry> printer = print.printer(COLUMNS, TypesCommand::print);
        all.types()
                .forEach(type ->
                        printer.print(new Entry("type", type.name(), type.names(), type.interpreters(), type.title())));
        if (print.isText()) {
            print.terminal().line("");
        }
        all.traits()
                .forEach(trait ->
                        printer.print(new Entry("trait", trait.name(), List.of(), List.of(), trait.meaning())));
        return ExitStatus.FOUND;
    }

    private static void print(Terminal terminal, Entry entry) {
        String interpreters = entry.interpreters.isEmpty() ? "" : "  #! " + String.join(" ", entry.interpreters);
        terminal.line(terminal.styled(Terminal.Style.PATH, String.format("%-14s", entry.name)) + " "
                + (entry.kind.equals("trait") ? entry.meaning : String.join(" ", entry.files) + interpreters));
    }
}
