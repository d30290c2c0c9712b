package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.core.lines.FindInText;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.replace.EncodedText;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.BlobTooLargeException;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.git.PatchWriter;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.lines.LineParameters;
import dev.oddbeacon.server.searches.Subjects;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.BusyException;
import dev.oddbeacon.server.web.TooLargeException;
import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/**
 * Replaces what a search for lines matches, in copies: what comes out is what would change, and patches. Nothing is written to
 * a repository.
 */
@Component
class Replacements {
    private static final int MOST_FILES = 10_000;
    private static final int MOST_MATCHES = 200_000;
    private static final int MOST_OF_FILE = 50_000;
    private static final long MOST_BYTES = 200_000_000; // of files that change
    private static final int LONGEST_SHOWN = 400; // characters of a line

    private static final int LONGEST_MESSAGE = 10_000; // characters
    private static final int LONGEST_AUTHOR = 200;

    private final Contexts contexts;
    private final Clock clock;

    Replacements(Contexts contexts, Clock clock) {
        this.contexts = contexts;
        this.clock = clock;
    }

    /** Where a branch of a repository is. */
    record At(String repository, String branch, String commit) {}

    /** What becomes of a file. */
    private sealed interface Fate {}

    /** A file as it is and as it would be. */
    private record Edited(At at, String path, byte[] before, byte[] after, List<Replacement.Change> changes)
            implements Fate {}

    /** A file that stays as it is. */
    private record Stays(String why) implements Fate {}

    /** Where a match begins. */
    private record Start(int branch, int file, int line, int column) {}

    private record Outcome(List<Edited> files, List<Replacement.Left> left, int matches) {}

    Replacement.Preview preview(Caller caller, Replacement wanted, int mostFiles) throws IOException {
        Outcome outcome = run(caller, wanted);
        return new Replacement.Preview(
                outcome.matches,
                outcome.files.stream()
                        .limit(mostFiles)
                        .map(file -> new Replacement.File(
                                file.at.repository, file.at.branch, file.at.commit, file.path, file.changes))
                        .toList(),
                outcome.files.size(),
                outcome.left);
    }

    /** A patch for each branch of a repository in which something changes, in their order. */
    Map<At, byte[]> patches(Caller caller, Replacement wanted) throws IOException {
        boolean isMail = wanted.message() != null;
        if (isMail) {
            checkCommit(wanted.message(), wanted.author());
        }
        Map<At, PatchWriter> writers = new LinkedHashMap<>();
        for (Edited file : run(caller, wanted).files) {
            if (!java.util.Arrays.equals(file.before, file.after)) {
                writers.computeIfAbsent(file.at, _ -> new PatchWriter()).add(file.path, file.before, file.after);
            }
        }
        Map<At, byte[]> patches = new LinkedHashMap<>();
        writers.forEach((at, writer) -> patches.put(
                at,
                isMail ? writer.toMail(wanted.author().strip(), clock.instant(), wanted.message()) : writer.toBytes()));
        return patches;
    }

    private static void checkCommit(String message, String author) {
        if (message.isBlank() || message.length() > LONGEST_MESSAGE) {
            throw new BadRequestException(
                    "The message of a commit is missing, or has more than " + LONGEST_MESSAGE + " characters.");
        }
        String name = Objects.requireNonNullElse(author, "").strip();
        int mark = name.indexOf('<');
        if (mark <= 0
                || name.indexOf('>') != name.length() - 1
                || name.length() > LONGEST_AUTHOR
                || !Visible.isVisible(name)) {
            throw new BadRequestException("The author of a commit is written as Name <address>.");
        }
    }

    private Outcome run(Caller caller, Replacement wanted) throws IOException {
        if (wanted.parameters() == null || wanted.with() == null) {
            throw new BadRequestException(
                    "Give the parameters of a search for lines, and with: what stands instead of its matches.");
        }
        LineParameters parameters =
                (LineParameters) Subjects.filled(Subject.LINES, Subjects.kept(Subject.LINES, wanted.parameters()));
        if (Boolean.TRUE.equals(parameters.without())) {
            throw new BadRequestException("Files that lack a text have nothing to replace. Leave out without.");
        }
        TextQuery text = parameters.textQuery();
        var template =
                dev.oddbeacon.core.replace.Replacement.of(text, wanted.with(), Boolean.TRUE.equals(wanted.keepCase()));
        Choice choice = Choice.of(wanted);
        try (CallerContext context = contexts.open(caller)) {
            ScopeParameters scope = Subjects.scope(wanted.parameters());
            Query query = parameters.query(context, scope);
            context.check(query);
            View view = context.view();
            var found =
                    LineSearch.ofFiles(CompiledQuery.of(query, CaseMode.AUTO)).run(context.search());
            if (found.page().size() > MOST_FILES) {
                throw new TooLargeException("More than " + MOST_FILES + " files match. Narrow the scope or the text.");
            }
            Optional<Set<Start>> regions = scope.hasRegions() ? Optional.of(starts(context, query)) : Optional.empty();
            List<Edited> files = new ArrayList<>();
            List<Replacement.Left> left = new ArrayList<>();
            int matches = 0;
            long bytes = 0;
            MirrorReader mirror = null;
            String opened = "";
            try {
                for (var hit : found.page()) {
                    context.search().budget().demand();
                    Branch branch = view.branch(hit.branchNumber());
                    SnapshotReader snapshot = view.snapshot(hit.branchNumber());
                    String path = snapshot.path(hit.file());
                    String place = branch.repository() + "/" + path;
                    Optional<String> why = choice.whyLeft(branch.repository(), place)
                            .or(() -> whyLeft(snapshot.traits(hit.file()), wanted));
                    if (why.isPresent()) {
                        left.add(new Replacement.Left(branch.repository(), path, why.get()));
                        continue;
                    }
                    if (mirror == null || !opened.equals(branch.repository())) {
                        if (mirror != null) {
                            mirror.close();
                        }
                        mirror = context.mirror(context.repository(branch.repository()));
                        opened = branch.repository();
                    }
                    byte[] before;
                    try {
                        before = mirror.blob(snapshot.id(hit.file()));
                    } catch (BlobTooLargeException e) {
                        left.add(new Replacement.Left(branch.repository(), path, "it is too large"));
                        continue;
                    }
                    At at = new At(branch.repository(), branch.name(), branch.commit());
                    Predicate<Start> isIn =
                            start -> regions.isEmpty() || regions.get().contains(start);
                    switch (edit(
                            context,
                            at,
                            path,
                            before,
                            text,
                            template,
                            choice,
                            (line, column) -> isIn.test(new Start(hit.branchNumber(), hit.file(), line, column)))) {
                        case Edited file -> {
                            matches += (int) file.changes.stream()
                                    .filter(Replacement.Change::applied)
                                    .count();
                            bytes += file.after.length;
                            files.add(file);
                        }
                        case Stays(String reason) -> left.add(new Replacement.Left(branch.repository(), path, reason));
                    }
                    if (matches > MOST_MATCHES || bytes > MOST_BYTES) {
                        throw new TooLargeException("More than " + MOST_MATCHES + " matches, or " + MOST_BYTES
                                + " bytes, would change. Narrow the scope or the text.");
                    }
                }
            } finally {
                if (mirror != null) {
                    mirror.close();
                }
            }
            if (context.search().budget().stop().isPresent()) {
                throw new BusyException("Not all could be looked through in the time a search may take. Narrow it.");
            }
            return new Outcome(files, left, matches);
        }
    }

    /** Where matches begin in the regions of a scope: the search knows them, a text alone does not. */
    private static Set<Start> starts(CallerContext context, Query query) {
        Set<Start> starts = new HashSet<>();
        new LineSearch(
                        CompiledQuery.of(query, CaseMode.AUTO),
                        MOST_MATCHES,
                        0,
                        LineAnswer.Position.START,
                        false,
                        LineSearch.Order.PATH,
                        LineSearch.Show.LINES)
                .run(context.search())
                .page()
                .forEach(file -> file.excerpts().stream()
                        .flatMap(excerpt -> excerpt.lines().stream())
                        .forEach(line -> line.matches()
                                .forEach(match -> starts.add(new Start(
                                        file.branchNumber(), file.file(), line.number(), match.start() + 1)))));
        return starts;
    }

    private static Optional<String> whyLeft(int traits, Replacement wanted) {
        if (Boolean.TRUE.equals(wanted.generated())) {
            return Optional.empty();
        }
        List<String> labels = Traits.labels(traits);
        return List.of(Trait.GENERATED, Trait.VENDORED).stream()
                .map(Trait::label)
                .filter(labels::contains)
                .findFirst()
                .map(label -> "it is " + label + "; change what it comes from");
    }

    /** Whether a match counts, by its line and column. */
    @FunctionalInterface
    private interface Counts {
        boolean test(int line, int column);
    }

    private static Fate edit(
            CallerContext context,
            At at,
            String path,
            byte[] before,
            TextQuery query,
            dev.oddbeacon.core.replace.Replacement template,
            Choice choice,
            Counts counts) {
        Optional<EncodedText> decoded = EncodedText.of(before);
        if (decoded.isEmpty()) {
            return new Stays("it has no text");
        }
        String text = decoded.get().text();
        List<FindInText.Match> matches = FindInText.of(
                query,
                text.getBytes(java.nio.charset.StandardCharsets.UTF_8),
                MOST_OF_FILE + 1,
                context.search().budget()::isOver);
        if (matches.size() > MOST_OF_FILE) {
            return new Stays("it has more than " + MOST_OF_FILE + " matches");
        }
        List<EncodedText.Edit> edits = new ArrayList<>();
        List<Replacement.Change> changes = new ArrayList<>();
        int line = 1;
        int counted = 0; // up to where lines are
        for (FindInText.Match match : matches) {
            for (int feed = text.indexOf('\n', counted); feed >= 0 && feed < match.start(); ) {
                line++;
                counted = feed + 1;
                feed = text.indexOf('\n', counted);
            }
            int column = match.start() - counted + 1;
            if (!counts.test(line, column)) {
                continue;
            }
            String place = at.repository + "/" + path + ":" + line + ":" + column;
            List<String> warnings = warnings(query, text, match);
            Optional<String> with =
                    Optional.ofNullable(choice.own.get(place)).or(() -> template.of(text, match.start(), match.end()));
            if (with.isEmpty()) {
                warnings.add("its groups cannot be told; give it a replacement of its own");
            }
            boolean applied = with.isPresent() && !choice.except.contains(place);
            int lineEnd = text.indexOf('\n', Math.max(match.start(), match.end() - 1));
            String after = with.orElse(text.substring(match.start(), match.end()));
            changes.add(new Replacement.Change(
                    line,
                    column,
                    shown(text.substring(counted, lineEnd < 0 ? text.length() : lineEnd)),
                    shown(text.substring(counted, match.start())
                            + after
                            + text.substring(
                                    match.end(), Math.max(match.end(), lineEnd < 0 ? text.length() : lineEnd))),
                    text.substring(match.start(), match.end()),
                    after,
                    applied,
                    List.copyOf(warnings)));
            if (applied) {
                edits.add(new EncodedText.Edit(match.start(), match.end(), after));
            }
        }
        if (changes.isEmpty()) {
            return new Stays("nothing in it matches by itself");
        }
        Optional<byte[]> after = decoded.get().after(edits);
        return after.isPresent()
                ? new Edited(at, path, before, after.get(), changes)
                : new Stays("its encoding, " + decoded.get().encoding() + ", has no such characters");
    }

    private static String shown(String line) {
        return line.length() <= LONGEST_SHOWN ? line : line.substring(0, LONGEST_SHOWN) + "…";
    }

    private static List<String> warnings(TextQuery query, String text, FindInText.Match match) {
        List<String> warnings = new ArrayList<>();
        boolean begins =
                match.start() > 0 && isOfWord(text.charAt(match.start() - 1)) && isOfWord(text.charAt(match.start()));
        boolean ends = match.end() < text.length()
                && isOfWord(text.charAt(match.end()))
                && isOfWord(text.charAt(match.end() - 1));
        if (begins || ends) {
            warnings.add("it is part of a longer word");
        }
        if (query.reading() == Reading.PLAIN
                && !text.regionMatches(match.start(), query.text(), 0, match.end() - match.start())
                && text.regionMatches(true, match.start(), query.text(), 0, match.end() - match.start())) {
            warnings.add("it is written in another case");
        }
        return warnings;
    }

    private static boolean isOfWord(char c) {
        return Character.isLetterOrDigit(c) || c == '_';
    }

    /** What is left as it is, and what has a replacement of its own. */
    private record Choice(Set<String> except, Map<String, String> own) {
        static Choice of(Replacement wanted) {
            return new Choice(
                    new HashSet<>(Objects.requireNonNullElse(wanted.except(), List.of())),
                    new HashMap<>(Objects.requireNonNullElse(wanted.own(), Map.of())));
        }

        Optional<String> whyLeft(String repository, String place) {
            return except.contains(repository) || except.contains(place)
                    ? Optional.of("it was taken out")
                    : Optional.empty();
        }
    }
}
