package dev.oddbeacon.client.command;

import dev.oddbeacon.api.CallsAnswer;
import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code oddbeacon calls}. */
@Command(
        name = "calls",
        mixinStandardHelpOptions = true,
        description = "Prints who calls something, and who calls those, as a tree; or what it calls.%n",
        footer = {
            "",
            "By uses that are sure or likely; those that only have the name are counted.",
            "",
            "Examples:",
            "  oddbeacon calls BerthPlanner.assign",
            "  oddbeacon calls --callees --depth 1 BerthPlanner.assign",
            "  oddbeacon calls --format csv Rule.check"
        })
public final class CallsCommand implements Callable<Integer> {
    private static final int MOST_ASKED = 500;
    private static final int DEEPEST = 20;
    private static final int MOST_LINES = 5;

    @Parameters(
            paramLabel = "NAME|PLACE",
            description =
                    "What is called, as in Berth.assign; or a place where it is named: REPOSITORY/PATH:LINE:COLUMN.")
    private String asked;

    @Option(names = "--callees", description = "What it calls, instead of who calls it.")
    private boolean callees;

    @Option(
            names = "--depth",
            paramLabel = "N",
            defaultValue = "3",
            description = "Levels of the tree, 1 to 20 (default: ${DEFAULT-VALUE}).")
    private int depth;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    @Spec
    private CommandSpec spec;

    /**
     * A line of the tree.
     *
     * @param depth from 1
     * @param isSeen whether its own ends stand further above
     */
    record Node(
            int depth,
            String name,
            String kind,
            String container,
            String repository,
            String path,
            int line,
            int column,
            String certainty,
            boolean isSeen,
            List<CallsAnswer.Site> sites) {
        static Node of(int depth, CallsAnswer.End end, boolean isSeen) {
            SymbolAt.Target declared = end.declaration();
            CallsAnswer.Site first = end.sites().getFirst();
            return declared == null
                    ? new Node(
                            depth,
                            end.path().substring(end.path().lastIndexOf('/') + 1),
                            "file",
                            "",
                            end.repository(),
                            end.path(),
                            first.line(),
                            first.column(),
                            end.certainty(),
                            isSeen,
                            end.sites())
                    : new Node(
                            depth,
                            declared.name(),
                            declared.kind(),
                            declared.container(),
                            end.repository(),
                            end.path(),
                            declared.line(),
                            declared.column(),
                            end.certainty(),
                            isSeen,
                            end.sites());
        }
    }

    private final Set<String> seen = new HashSet<>();
    private int left = MOST_ASKED;
    private long byName;
    private boolean exact = true;

    private static Columns<Node> columns() {
        return new Columns<Node>()
                .add("depth", Node::depth)
                .add("repository", Node::repository)
                .add("path", Node::path)
                .add("line", Node::line)
                .add("column", Node::column)
                .add("kind", Node::kind)
                .add("container", Node::container)
                .add("name", Node::name)
                .add("certainty", Node::certainty)
                .add("calls", node -> node.sites().size());
    }

    @Override
    public Integer call() {
        if (depth < 1 || depth > DEEPEST) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--depth " + depth + " is not from 1 to " + DEEPEST + ". Give a number within.");
        }
        boolean isPlace = asked.matches(".*:\\d+:\\d+");
        CallsAnswer first = ask(isPlace ? "of" : "symbol", asked);
        ResultPrinter<Node> printer = print.printer(columns(), CallsCommand::print);
        if (print.isText()) {
            first.of().forEach(target -> print.terminal().line(title(print.terminal(), target)));
        }
        first.of().forEach(target -> seen.add(place(target)));
        level(first, 1, printer);
        if (first.ends().isEmpty()) {
            Terminal.complain(callees ? "It calls nothing that is indexed." : "Nothing that is indexed calls it.");
        }
        if (byName > 0) {
            Terminal.complain("left out: " + Amounts.of(byName, "place") + " that nothing but the name speaks for.");
        }
        if (!exact) {
            Terminal.complain(
                    "there is more: not all places were looked at. Ask for a part, by a place or with a smaller --depth.");
        }
        return ExitStatus.of(!first.ends().isEmpty());
    }

    private CallsAnswer ask(String parameter, String value) {
        left--;
        CallsAnswer answer = service.get(
                Service.path("calls"),
                new Service.Parameters().add(parameter, value).add("direction", callees ? "callees" : "callers"),
                CallsAnswer.class);
        byName += answer.byName();
        exact &= answer.exact();
        return answer;
    }

    private void level(CallsAnswer answer, int at, ResultPrinter<Node> printer) {
        for (CallsAnswer.End end : answer.ends()) {
            boolean isSeen = end.at() != null && !seen.add(end.at());
            printer.print(Node.of(at, end, isSeen));
            if (at < depth && end.at() != null && !isSeen) {
                if (left > 0) {
                    level(ask("of", end.at()), at + 1, printer);
                } else {
                    exact = false;
                }
            }
        }
    }

    private static String place(SymbolAt.Target target) {
        return target.repository() + "/" + target.path() + ":" + target.line() + ":" + target.column();
    }

    private static String title(Terminal terminal, SymbolAt.Target target) {
        return terminal.styled(Terminal.Style.PATH, qualified(target.kind(), target.container(), target.name()))
                + terminal.styled(
                        Terminal.Style.QUIET,
                        "   " + Terminal.clean(target.repository() + "/" + target.path()) + ":" + target.line());
    }

    /** A method with its type; what stands in a package without it. */
    private static String qualified(String kind, String container, String name) {
        String innermost = container.substring(Math.max(container.lastIndexOf('.'), container.lastIndexOf(':')) + 1);
        boolean isInType =
                !innermost.isEmpty() && (kind.equals("method") || kind.equals("field") || kind.equals("constructor"));
        return Terminal.clean(isInType ? innermost + "." + name : name);
    }

    private static void print(Terminal terminal, Node node) {
        List<String> lines = node.sites().stream()
                .map(site -> String.valueOf(site.line()))
                .distinct()
                .toList();
        String some = String.join(", ", lines.subList(0, Math.min(MOST_LINES, lines.size())));
        String more = lines.size() > MOST_LINES ? " and more" : "";
        String certainty = node.certainty().equals("sure") ? "" : node.certainty() + ", ";
        terminal.line("  ".repeat(node.depth())
                + terminal.styled(Terminal.Style.PATH, qualified(node.kind(), node.container(), node.name()))
                + terminal.styled(
                        Terminal.Style.QUIET,
                        "   " + Terminal.clean(node.repository() + "/" + node.path()) + ":" + node.line() + "   "
                                + certainty + "in " + (lines.size() == 1 ? "line " : "lines ") + some + more
                                + (node.isSeen() ? "; see above" : "")));
    }
}
