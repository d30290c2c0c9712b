package dev.oddbeacon.client;

import dev.oddbeacon.client.browse.BrowseCommand;
import dev.oddbeacon.client.command.BlameCommand;
import dev.oddbeacon.client.command.CallsCommand;
import dev.oddbeacon.client.command.CommitsCommand;
import dev.oddbeacon.client.command.CompleteCommand;
import dev.oddbeacon.client.command.CompletionCommand;
import dev.oddbeacon.client.command.CounterpartCommand;
import dev.oddbeacon.client.command.CredentialsCommand;
import dev.oddbeacon.client.command.DiffCommand;
import dev.oddbeacon.client.command.FilesCommand;
import dev.oddbeacon.client.command.HealthCommand;
import dev.oddbeacon.client.command.LinesCommand;
import dev.oddbeacon.client.command.LogCommand;
import dev.oddbeacon.client.command.LspCommand;
import dev.oddbeacon.client.command.MachinesCommand;
import dev.oddbeacon.client.command.ManCommand;
import dev.oddbeacon.client.command.McpCommand;
import dev.oddbeacon.client.command.OutlineCommand;
import dev.oddbeacon.client.command.PlacesCommand;
import dev.oddbeacon.client.command.ReplaceCommand;
import dev.oddbeacon.client.command.ReposCommand;
import dev.oddbeacon.client.command.RostersCommand;
import dev.oddbeacon.client.command.SearchToKeep;
import dev.oddbeacon.client.command.SearchesCommand;
import dev.oddbeacon.client.command.SetsCommand;
import dev.oddbeacon.client.command.ShowCommand;
import dev.oddbeacon.client.command.SignInCommand;
import dev.oddbeacon.client.command.SignOutCommand;
import dev.oddbeacon.client.command.StatusCommand;
import dev.oddbeacon.client.command.SymbolsCommand;
import dev.oddbeacon.client.command.TokensCommand;
import dev.oddbeacon.client.command.TranslationsCommand;
import dev.oddbeacon.client.command.TypesCommand;
import dev.oddbeacon.client.command.WatchesCommand;
import dev.oddbeacon.client.command.WhoamiCommand;
import dev.oddbeacon.client.command.WorklistsCommand;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command-line client. It knows the service by its HTTP interface alone. */
@Command(
        name = "oddbeacon",
        mixinStandardHelpOptions = true,
        versionProvider = ClientMain.Version.class,
        description = "Searches the repositories of a team.%n",
        synopsisSubcommandLabel = "COMMAND",
        footer = {
            "",
            "Where the service is: --url, or ODDBEACON_URL, or http://127.0.0.1:7420.",
            "Exit status: 0 found, 1 nothing found, 2 wrong usage or query, 3 service not reached or failed, 4 to act on.",
            "",
            "Example: oddbeacon lines --repo tidewatch \"surge threshold\""
        })
public final class ClientMain implements Runnable {
    private static final Set<String> VERSION = Set.of("--version", "-V");
    /** Where the words begin that are to be completed: {@code complete -- WORD}. */
    private static final int BEHIND_COMPLETE = 2;

    private static final Set<String> SEARCHES = Set.of("lines", "files", "symbols", "commits");
    private static final List<Class<?>> COMMANDS = List.of(
            LinesCommand.class,
            FilesCommand.class,
            SymbolsCommand.class,
            CommitsCommand.class,
            ShowCommand.class,
            LogCommand.class,
            BlameCommand.class,
            DiffCommand.class,
            OutlineCommand.class,
            CounterpartCommand.class,
            TranslationsCommand.class,
            CallsCommand.class,
            PlacesCommand.class,
            BrowseCommand.class,
            LspCommand.class,
            McpCommand.class,
            ReposCommand.class,
            ReplaceCommand.class,
            SearchesCommand.class,
            WatchesCommand.class,
            WorklistsCommand.class,
            SetsCommand.class,
            TypesCommand.class,
            StatusCommand.class,
            HealthCommand.class,
            MachinesCommand.class,
            SignInCommand.class,
            SignOutCommand.class,
            WhoamiCommand.class,
            TokensCommand.class,
            CredentialsCommand.class,
            RostersCommand.class,
            CompletionCommand.class,
            ManCommand.class,
            CompleteCommand.class);

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    public static void main(String[] arguments) {
        int status = run(arguments);
        Terminal.flush();
        System.exit(status);
    }

    static int run(String... arguments) {
        warnOfShell(arguments);
        return line(arguments).execute(arguments);
    }

    /**
     * What a command line is read with.
     *
     * @param arguments none for all commands
     */
    public static CommandLine line(String... arguments) {
        CommandLine line = new CommandLine(new ClientMain());
        commands(arguments).forEach(line::addSubcommand);
        line.setExpandAtFiles(false); // a file of options could name another service, which then gets what is asked
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setExecutionExceptionHandler((e, _, _) -> failed(e));
        line.setParameterExceptionHandler((e, _) -> refused(e));
        line.setUsageHelpAutoWidth(true);
        line.setAbbreviatedOptionsAllowed(false);
        CommandLine searches = line.getSubcommands().get("searches");
        if (searches != null) {
            searches.getSubcommands()
                    .get("save")
                    .setStopAtPositional(true); // what follows the name belongs to the search
        }
        return line;
    }

    /**
     * The one that the first word names, as reading the options of all takes most of the time that a command takes, and
     * for {@code searches} those that it keeps and runs; all of them if it names none.
     */
    private static List<Class<?>> commands(String... arguments) {
        if (arguments.length == 1 && VERSION.contains(arguments[0])) {
            return List.of();
        }
        Optional<Class<?>> named = named(arguments, 0);
        if (named.isPresent() && named.get() == ManCommand.class) {
            return COMMANDS;
        }
        if (named.isPresent() && named.get() == CompleteCommand.class) {
            Optional<Class<?>> completed = named(arguments, BEHIND_COMPLETE);
            return completed.isPresent() && arguments.length > BEHIND_COMPLETE + 1
                    ? List.of(CompleteCommand.class, completed.get())
                    : COMMANDS;
        }
        return named.isEmpty()
                ? COMMANDS
                : COMMANDS.stream()
                        .filter(command -> command == named.get()
                                || named.get() == SearchesCommand.class && SearchToKeep.class.isAssignableFrom(command))
                        .toList();
    }

    /** The command that a word of the line names. */
    private static Optional<Class<?>> named(String[] arguments, int at) {
        return COMMANDS.stream()
                .filter(command -> arguments.length > at
                        && command.getAnnotation(Command.class).name().equals(arguments[at]))
                .findFirst();
    }

    private static int refused(CommandLine.ParameterException e) {
        Terminal.complain(e.getMessage() + (e.getMessage().endsWith(".") ? "" : ".") + " "
                + e.getCommandLine().getCommandSpec().qualifiedName() + " --help shows what it takes.");
        return ExitStatus.WRONG;
    }

    /**
     * A pattern without quotes reaches us as the names of the files that the shell found for it, two or more in a row.
     */
    private static void warnOfShell(String... arguments) {
        for (int i = 2; i < arguments.length; i++) {
            if (SEARCHES.contains(arguments[0])
                    && isFileHere(arguments[i - 1])
                    && isFileHere(arguments[i])
                    && !arguments[i - 2].equals("--files-from")) {
                Terminal.complain(
                        arguments[i - 1] + " and " + arguments[i]
                                + " are files here: the shell may have put them in place of a pattern. Put the pattern in quotes: --under '*.java'.");
                return;
            }
        }
    }

    private static boolean isFileHere(String word) {
        try {
            return !word.isEmpty() && Files.exists(Path.of(word));
        } catch (InvalidPathException e) {
            return false;
        }
    }

    private static int failed(Exception e) throws Exception {
        if (e instanceof ServiceProblem problem) {
            Terminal.complain(problem.getMessage());
            return problem.exitStatus();
        }
        throw e;
    }

    @Override
    public void run() {
        spec.commandLine().usage(System.err);
        throw new CommandLine.ParameterException(spec.commandLine(), "A command is missing.");
    }

    /** The version of this program; empty before it is packaged. */
    public static Optional<String> version() {
        return Terminal.version();
    }

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            return new String[] {"Odd Beacon " + version().orElse("(not packaged)")};
        }
    }
}
