package dev.oddbeacon.client;

import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command-line client. It knows the service by its HTTP interface alone. */
@Command(name = "oddbeacon", mixinStandardHelpOptions = true, versionProvider = ClientMain.Version.class,
        description = "Searches the repositories of a team.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {LinesCommand.class, FilesCommand.class, ShowCommand.class, PlacesCommand.class, ReposCommand.class, SetsCommand.class, TypesCommand.class, StatusCommand.class},
        footer = {"", "Where the service is: --url, or ODDBEACON_URL, or http://127.0.0.1:7420.",
            "Exit status: 0 found, 1 nothing found, 2 wrong usage or query, 3 service not reached or failed.",
            "", "Example: oddbeacon lines --repo tidewatch \"surge threshold\""})
public final class ClientMain implements Runnable {
    static final int FOUND = 0;
    static final int NOTHING_FOUND = 1;
    static final int WRONG = 2;
    static final int FAILED = 3;
    static final String EXPANDED = "these are names of files here: the shell may have put them in place of a pattern. Put the pattern in quotes: --under '*.java'.";

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    public static void main(String[] arguments) {
        int status = run(arguments);
        Terminal.flush();
        System.exit(status);
    }

    static int run(String... arguments) {
        CommandLine line = new CommandLine(new ClientMain());
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setExecutionExceptionHandler((e, _, _) -> failed(e));
        CommandLine.IParameterExceptionHandler refusal = line.getParameterExceptionHandler();
        line.setParameterExceptionHandler((e, given) -> {
            int status = refusal.handleParseException(e, given);
            if (e instanceof CommandLine.UnmatchedArgumentException unmatched && !unmatched.getUnmatched().isEmpty() && unmatched.getUnmatched().stream().allMatch(ClientMain::isFileHere)) {
                Terminal.complain(EXPANDED);
            }
            return status;
        });
        line.setUsageHelpAutoWidth(true);
        line.setAbbreviatedOptionsAllowed(false);
        return line.execute(arguments);
    }

    /** Whether a word is a file where one stands, which words of a search rarely are and those that a shell puts in place of a pattern always. */
    static boolean isFileHere(String word) {
        try {
            return java.nio.file.Files.exists(java.nio.file.Path.of(word));
        } catch (java.nio.file.InvalidPathException e) {
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

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            String version = ClientMain.class.getPackage().getImplementationVersion();
            return new String[] {"Odd Beacon " + (version == null ? "(not packaged)" : version)};
        }
    }
}
