package dev.oddbeacon.client.command;

import dev.oddbeacon.api.TokenInfo;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.output.TextTable;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.core.type.TypeReference;

@Command(
        name = "tokens",
        mixinStandardHelpOptions = true,
        description = "Your tokens for programs. A new one is allowed in a browser, where you sign in yourself.%n",
        subcommands = {
            TokensCommand.ListCommand.class,
            TokensCommand.AddCommand.class,
            TokensCommand.RemoveCommand.class
        },
        footer = {"", "Example: oddbeacon tokens list"})
public final class TokensCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "A command is missing: list, add or remove.");
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists your tokens, the newest first.%n",
            footer = {"", "Example: oddbeacon tokens list"})
    static final class ListCommand implements Callable<Integer> {
        @Mixin
        private SingleFormat format;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<TokenInfo> all = service.get(Service.path("tokens"), new TypeReference<List<TokenInfo>>() {});
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (format.isJson()) {
                all.forEach(terminal::json);
                return ExitStatus.of(!all.isEmpty());
            }
            if (all.isEmpty()) {
                Terminal.complain("no tokens.");
                return ExitStatus.of(false);
            }
            List<List<String>> rows = new ArrayList<>();
            all.forEach(token -> rows.add(List.of(
                    String.valueOf(token.id()),
                    token.role(),
                    token.repositories().isEmpty() ? "all you see" : String.join(" ", token.repositories()),
                    day(token.ends().toString()),
                    token.lastUsed() == null ? "never" : day(token.lastUsed().toString()),
                    token.name())));
            TextTable.print(
                    terminal, List.of("ID", "ROLE", "REPOSITORIES", "ENDS", "LAST USED", "NAME"), rows, Set.of(0));
            return ExitStatus.FOUND;
        }

        private static String day(String instant) {
            return instant.substring(0, "2026-01-01".length());
        }
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description =
                    "Makes a token: shows an address and a short code, and prints the token when you have allowed it in the browser. It is shown this once.%n",
            footer = {"", "Example: oddbeacon tokens add --repo tidewatch --days 30 \"Nightly report\" > token"})
    static final class AddCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", description = "What it is for.")
        private String name;

        @Option(
                names = "--role",
                paramLabel = "ROLE",
                description = "reader (default), maintainer or administrator; at most your own.")
        private String role = "reader";

        @Option(names = "--days", paramLabel = "N", description = "Until it ends: 1 to 400, 90 by default.")
        private int days = 90;

        @Option(
                names = "--repo",
                paramLabel = "NAME",
                description =
                        "The only repository that it sees; several by several options. By default all that you see.")
        private List<String> repositories = List.of();

        @Mixin
        private Service service;

        @Override
        public Integer call() throws InterruptedException {
            Service.Parameters wanted = new Service.Parameters()
                    .add("token", name)
                    .add("role", role)
                    .add("days", days)
                    .addAll("repository", repositories);
            String token = BrowserGrant.await(service, wanted, "oddbeacon tokens add");
            new Terminal(Terminal.Color.AUTO).line(token);
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Takes tokens back, at once.%n",
            footer = {"", "Example: oddbeacon tokens remove 12"})
    static final class RemoveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "ID", arity = "1..*")
        private List<Long> ids;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            ids.forEach(id -> service.delete(Service.path("tokens", String.valueOf(id))));
            return ExitStatus.FOUND;
        }
    }
}
