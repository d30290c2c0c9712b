package dev.oddbeacon.client.command;

import dev.oddbeacon.api.CredentialInfo;
import dev.oddbeacon.api.HostKeys;
import dev.oddbeacon.api.NewCredential;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.output.TextTable;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
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
        name = "credentials",
        mixinStandardHelpOptions = true,
        description =
                "What hosts of private repositories are shown to let the service in. Secrets are never read back.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            CredentialsCommand.ListCommand.class,
            CredentialsCommand.AddCommand.class,
            CredentialsCommand.RemoveCommand.class
        },
        footer = {"", "Example: oddbeacon credentials list"})
public final class CredentialsCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "A command is missing: list, add or remove.");
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the hosts that have a credential, and by which keys they are known.%n",
            footer = {"", "Example: oddbeacon credentials list"})
    static final class ListCommand implements Callable<Integer> {
        @Mixin
        private SingleFormat format;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            List<CredentialInfo> all =
                    service.get(Service.path("credentials"), new TypeReference<List<CredentialInfo>>() {});
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (format.isJson()) {
                all.forEach(terminal::json);
                return ExitStatus.of(!all.isEmpty());
            }
            if (all.isEmpty()) {
                Terminal.complain("no credentials.");
                return ExitStatus.of(false);
            }
            List<List<String>> rows = new ArrayList<>();
            all.forEach(one -> rows.add(List.of(
                    String.valueOf(one.id()),
                    one.host(),
                    one.fingerprint() == null ? "token of " + one.user() : "key " + one.fingerprint(),
                    one.givenBy() == null ? "-" : one.givenBy(),
                    one.given().toString().substring(0, "2026-01-01".length()))));
            TextTable.print(terminal, List.of("ID", "HOST", "WHAT IT IS SHOWN", "GIVEN BY", "ON"), rows, Set.of(0));
            return ExitStatus.FOUND;
        }
    }

    @Command(
            name = "add",
            mixinStandardHelpOptions = true,
            description =
                    "Gives a host a credential, in place of the one that it had. For ssh, the host's keys are shown first: compare their fingerprints with what its keepers tell, and confirm one with --host-key.%n",
            footer = {
                "",
                "Example: oddbeacon credentials add git.quillhaven.example --ssh-key search_key --host-key SHA256:...",
                "Example: oddbeacon credentials add git.quillhaven.example --user search --token-file - < token"
            })
    static final class AddCommand implements Callable<Integer> {
        @Parameters(paramLabel = "HOST", description = "Its name, with :PORT if it is not the usual one.")
        private String host;

        @Option(names = "--ssh-key", paramLabel = "FILE", description = "A private key without a passphrase, for ssh.")
        private Path key;

        @Option(names = "--token-file", paramLabel = "FILE", description = "A token for https; - for standard input.")
        private Path token;

        @Option(names = "--user", paramLabel = "NAME", description = "Who the token is of; git by default.")
        private String user;

        @Option(
                names = "--host-key",
                paramLabel = "SHA256:...",
                description = "The fingerprint of a key by which the host is known; may be repeated.")
        private List<String> fingerprints = new ArrayList<>();

        @Mixin
        private Service service;

        @Override
        public Integer call() throws IOException {
            if ((key == null) == (token == null)) {
                throw new ServiceProblem("Give --ssh-key or --token-file, one of them.", ExitStatus.WRONG);
            }
            NewCredential wanted = key == null
                    ? new NewCredential(host, "token", user, read(token), List.of())
                    : new NewCredential(host, "ssh-key", user, read(key), confirmed());
            CredentialInfo given = service.put(Service.path("credentials"), wanted, CredentialInfo.class);
            new Terminal(Terminal.Color.AUTO)
                    .line(given.host() + " is shown "
                            + (key == null ? "a token of " + given.user() : "the key " + given.fingerprint())
                            + "; repositories there that failed are fetched again.");
            return ExitStatus.FOUND;
        }

        private static String read(Path file) throws IOException {
            return file.toString().equals("-")
                    ? new String(System.in.readAllBytes(), StandardCharsets.UTF_8)
                    : Files.readString(file);
        }

        /** The keys that the host offers, if somebody says that they are its. */
        private List<String> confirmed() {
            HostKeys offered = service.form(
                    Service.path("credentials", "host-keys"),
                    new Service.Parameters().add("host", host),
                    HostKeys.class);
            if (offered.keys() == null || offered.keys().isEmpty()) {
                throw new ServiceProblem(
                        host + " does not answer over ssh, or may not be gone to. Nothing was given.",
                        ExitStatus.WRONG);
            }
            List<HostKeys.Key> known = offered.keys().stream()
                    .filter(one -> fingerprints.contains(one.fingerprint()))
                    .toList();
            if (known.isEmpty()) {
                StringBuilder message = new StringBuilder(offered.host())
                        .append(
                                " offers these keys, and none of them is confirmed. Compare them with what its keepers tell, and add --host-key with one:");
                offered.keys()
                        .forEach(one -> message.append("\n  ")
                                .append(one.fingerprint())
                                .append("  ")
                                .append(one.type()));
                throw new ServiceProblem(message.toString(), ExitStatus.WRONG);
            }
            return known.stream().map(one -> one.type() + " " + one.key()).toList();
        }
    }

    @Command(
            name = "remove",
            mixinStandardHelpOptions = true,
            description = "Takes credentials back. What was fetched stays.%n",
            footer = {"", "Example: oddbeacon credentials remove 3"})
    static final class RemoveCommand implements Callable<Integer> {
        @Parameters(paramLabel = "ID", arity = "1..*")
        private List<Long> ids;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            ids.forEach(id -> service.delete(Service.path("credentials", String.valueOf(id))));
            return ExitStatus.FOUND;
        }
    }
}
