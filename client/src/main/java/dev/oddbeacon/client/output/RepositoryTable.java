package dev.oddbeacon.client.output;

import dev.oddbeacon.api.RepositoryInfo;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;

/** The list of repositories as a table, a row for each branch, columns as wide as they need to be. */
public final class RepositoryTable {
    private static final List<String> HEAD = List.of(
            "NAME", "STATE", "BRANCH", "COMMIT", "INDEXED", "CHECKED", "FILES", "LINES", "SIZE", "SKIPPED", "LABELS",
            "TITLE");
    private static final Set<Integer> NUMBERS = Set.of(6, 7, 8, 9);
    private static final int COMMIT_DIGITS = 8;

    /** @param branch null where none is indexed yet */
    private record Row(RepositoryInfo repository, RepositoryInfo.Branch branch) {
        static Stream<Row> of(RepositoryInfo repository) {
            return repository.branches().isEmpty()
                    ? Stream.of(new Row(repository, null))
                    : repository.branches().stream().map(branch -> new Row(repository, branch));
        }
    }

    private static final Columns<Row> COLUMNS = new Columns<Row>()
            .add("name", row -> row.repository.name())
            .add("state", row -> row.repository.state())
            .add("branch", ofBranch(RepositoryInfo.Branch::name))
            .add("commit", ofBranch(RepositoryInfo.Branch::commit))
            .add("indexed", ofBranch(RepositoryInfo.Branch::indexed))
            .add("files", ofBranch(RepositoryInfo.Branch::files))
            .add("lines", ofBranch(RepositoryInfo.Branch::lines))
            .add("bytes", ofBranch(RepositoryInfo.Branch::bytes))
            .add("skipped", ofBranch(RepositoryInfo.Branch::skipped))
            .add("labels", row -> String.join(" ", row.repository.labels()))
            .add("title", row -> row.repository.title())
            .add("checked", ofOrigin(RepositoryInfo.Following::checked))
            .add("behind", ofOrigin(RepositoryTable::behind));

    private RepositoryTable() {}

    private static Function<Row, Object> ofBranch(Function<RepositoryInfo.Branch, ?> value) {
        return row -> row.branch == null ? null : value.apply(row.branch);
    }

    private static Function<Row, Object> ofOrigin(Function<RepositoryInfo.Following, ?> value) {
        return row -> row.repository.following() == null ? null : value.apply(row.repository.following());
    }

    /** By how many commits it is behind its origin; {@code some} if that is not known. */
    private static Object behind(RepositoryInfo.Following following) {
        if (!following.behind()) {
            return 0;
        }
        return following.commits() == null ? "some" : following.commits();
    }

    /** When its origin was asked, and what came of it. */
    private static String checked(RepositoryInfo.Following following) {
        if (following == null) {
            return "-";
        }
        String when = following.checked() == null ? "never" : Amounts.ago(following.checked());
        if (following.problem() != null) {
            return "last " + when;
        }
        return following.behind() ? when + ", behind by " + behind(following) : when;
    }

    /** The list as CSV. */
    public static void printRecords(Terminal terminal, List<RepositoryInfo> repositories) {
        terminal.line(COLUMNS.header());
        repositories.stream().flatMap(Row::of).forEach(row -> terminal.line(COLUMNS.record(row)));
    }

    public static void print(Terminal terminal, List<RepositoryInfo> repositories) {
        if (repositories.isEmpty()) {
            return;
        }
        List<List<String>> rows = new ArrayList<>();
        for (RepositoryInfo info : repositories) {
            String labels = String.join(",", info.labels());
            if (info.branches().isEmpty()) {
                rows.add(List.of(
                        info.name(),
                        info.state(),
                        "-",
                        "-",
                        "-",
                        checked(info.following()),
                        "-",
                        "-",
                        "-",
                        "-",
                        labels,
                        info.title()));
            }
            for (RepositoryInfo.Branch branch : info.branches()) {
                rows.add(List.of(
                        info.name(),
                        info.state(),
                        branch.name(),
                        branch.commit().substring(0, COMMIT_DIGITS),
                        Amounts.ago(branch.indexed()),
                        checked(info.following()),
                        Amounts.number(branch.files()),
                        Amounts.number(branch.lines()),
                        Amounts.bytes(branch.bytes()),
                        Amounts.number(branch.skipped()),
                        labels,
                        info.title()));
            }
        }
        TextTable.print(terminal, HEAD, rows, NUMBERS);
        repositories.stream()
                .flatMap(info -> problem(info).map(problem -> info.name() + ": " + Terminal.clean(problem)).stream())
                .forEach(line -> terminal.line(terminal.styled(Terminal.Style.PROBLEM, line)));
    }

    /** What is wrong with it: it cannot be indexed, or its origin does not answer. */
    private static Optional<String> problem(RepositoryInfo info) {
        return Optional.ofNullable(info.problem())
                .or(() -> Optional.ofNullable(info.following()).map(RepositoryInfo.Following::problem));
    }
}
