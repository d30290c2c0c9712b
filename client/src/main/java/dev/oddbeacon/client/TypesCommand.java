package dev.oddbeacon.client;

import dev.oddbeacon.api.TypesAndTraits;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(name = "types", mixinStandardHelpOptions = true, description = "Lists the types and traits that files can have, as --type and --trait take them.%n", footer = {"", "Example: oddbeacon types"})
final class TypesCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Override
    public Integer call() {
        TypesAndTraits all = service.get(Service.path("types"), new Service.Parameters(), TypesAndTraits.class);
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        all.types().forEach(type -> terminal.line(terminal.styled(Terminal.Style.PATH, String.format("%-14s", type.name())) + " " + String.join(" ", type.names())
                + (type.interpreters().isEmpty() ? "" : "  #! " + String.join(" ", type.interpreters()))));
        terminal.line("");
        all.traits().forEach(trait -> terminal.line(terminal.styled(Terminal.Style.PATH, String.format("%-14s", trait.name())) + " " + trait.meaning()));
        return ClientMain.FOUND;
    }
}
