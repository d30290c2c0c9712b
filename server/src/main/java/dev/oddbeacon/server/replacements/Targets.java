package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.api.Replacement.EditedLine;
import dev.oddbeacon.api.Replacement.Left;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.git.BlobTooLargeException;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.BusyException;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.TooLargeException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** The files in which something is to be replaced: gathered, then read one by one. */
final class Targets {
    private static final int MOST_FILES = 10_000;
    private static final long MOST_BYTES = 200_000_000; // of files that change
    private static final List<Trait> FOREIGN =
            List.of(Trait.GENERATED, Trait.VENDORED, Trait.MINIFIED, Trait.TRANSLATION);

    private final CallerContext context;
    private final View view;
    private final Replacement wanted;
    private final Choice choice;
    private final Map<InBranch, Target> targets =
            new TreeMap<>(Comparator.comparingInt(InBranch::branchNumber).thenComparingInt(InBranch::file));
    private final List<Left> left = new ArrayList<>();

    /** What is done with a file. */
    private record Target(Optional<Found.Finder> text, Optional<Renames> path) {}

    /** Where a match begins. */
    private record Start(int line, int column) {}

    Targets(CallerContext context, Replacement wanted) {
        this.context = context;
        this.view = context.view();
        this.wanted = wanted;
        this.choice = Choice.of(wanted);
    }

    private void addText(InBranch in, Found.Finder finder) {
        targets.merge(
                in,
                new Target(Optional.of(finder), Optional.empty()),
                (before, _) -> new Target(Optional.of(finder), before.path));
        if (targets.size() > MOST_FILES) {
            throw new TooLargeException("More than " + MOST_FILES + " files match. Narrow the scope or the text.");
        }
    }

    /** The matches of a search. */
    void addText(Query query, boolean hasRegions, MatchFinder finder) {
        Optional<Map<InBranch, Set<Start>>> regions = hasRegions ? Optional.of(starts(query)) : Optional.empty();
        LineSearch.ofFiles(CompiledQuery.of(query, CaseMode.AUTO)).run(context.search()).page().stream()
                .map(hit -> new InBranch(hit.branchNumber(), hit.file()))
                .forEach(in -> {
                    Set<Start> here =
                            regions.map(all -> all.getOrDefault(in, Set.of())).orElse(Set.of());
                    addText(
                            in,
                            finder.counting(
                                    language(in),
                                    (line, column) -> regions.isEmpty() || here.contains(new Start(line, column))));
                });
    }

    private Optional<Language> language(InBranch in) {
        return view.location(in.branchNumber(), in.file())
                .flatMap(location -> location.segment().language(location.blob()));
    }

    /** Where matches begin in the regions of a scope: the search knows them, a text alone does not. */
    private Map<InBranch, Set<Start>> starts(Query query) {
        Map<InBranch, Set<Start>> starts = new HashMap<>();
        LineSearch search = new LineSearch(
                CompiledQuery.of(query, CaseMode.AUTO),
                Replacements.MOST_MATCHES,
                0,
                LineAnswer.Position.START,
                false,
                LineSearch.Order.PATH,
                LineSearch.Show.LINES);
        for (LineAnswer.FileHits file : search.run(context.search()).page()) {
            Set<Start> here =
                    starts.computeIfAbsent(new InBranch(file.branchNumber(), file.file()), _ -> new HashSet<>());
            file.excerpts().stream()
                    .flatMap(excerpt -> excerpt.lines().stream())
                    .forEach(line ->
                            line.matches().forEach(match -> here.add(new Start(line.number(), match.start() + 1))));
        }
        return starts;
    }

    /** Declarations and uses of a name; where it is only mentioned as well, if that is wanted. */
    void addSymbol(SymbolPlaces places, MatchFinder finder, boolean mentions, Scope scope, TextQuery text) {
        Set<InBranch> files = new HashSet<>(places.files());
        if (mentions) {
            Query query = scope.around(text.understand(false).query());
            LineSearch.ofFiles(CompiledQuery.of(query, CaseMode.AUTO)).run(context.search()).page().stream()
                    .map(hit -> new InBranch(hit.branchNumber(), hit.file()))
                    .forEach(files::add);
        }
        files.forEach(in -> addText(in, places.in(in, finder, mentions)));
    }

    /** Files of a scope whose paths match a text. */
    void addPaths(TextQuery text, Scope scope, MatchFinder finder) {
        Renames renames = new Renames(view, finder, choice);
        FileSearch search = new FileSearch(
                text.text(),
                text.reading() == Reading.REGEX ? FileSearch.PathReading.REGEX : FileSearch.PathReading.PLAIN,
                text.caseMode(),
                scope,
                FileSearch.Kind.FILE,
                FileSearch.Sizes.ANY,
                FileSearch.Sorting.by(FileSearch.Order.PATH),
                0,
                MOST_FILES + 1);
        for (FileSearch.Found found : search.run(context.search()).page()) {
            targets.merge(
                    new InBranch(found.branchNumber(), found.file()),
                    new Target(Optional.empty(), Optional.of(renames)),
                    (before, _) -> new Target(before.text, Optional.of(renames)));
        }
        if (targets.size() > MOST_FILES) {
            throw new TooLargeException("More than " + MOST_FILES + " paths match. Narrow the scope or the text.");
        }
    }

    /** Lines that were written anew; what a search matches in other lines of their files stays. */
    void editLines() {
        Map<InBranch, List<EditedLine>> byFile = new LinkedHashMap<>();
        for (EditedLine line : Objects.requireNonNullElse(wanted.lines(), List.<EditedLine>of())) {
            if (line.repository() == null || line.path() == null || line.was() == null || line.with() == null) {
                throw new BadRequestException("A line that is edited has repository, path, line, was and with.");
            }
            context.repository(line.repository());
            String branch = Objects.requireNonNullElse(line.branch(), "");
            InBranch in = view.branchNumber(line.repository(), branch)
                    .flatMap(number -> {
                        OptionalInt file = view.snapshot(number).find(line.path());
                        return file.isEmpty() ? Optional.empty() : Optional.of(new InBranch(number, file.getAsInt()));
                    })
                    .orElseThrow(() -> new NotFoundException("There is no file " + line.path() + " in "
                            + line.repository() + (branch.isEmpty() ? "" : " on " + branch) + "."));
            byFile.computeIfAbsent(in, _ -> new ArrayList<>()).add(line);
        }
        byFile.forEach((in, lines) -> {
            LinesWrittenAnew anew = new LinesWrittenAnew(lines);
            Optional<Found.Finder> before = Optional.ofNullable(targets.get(in)).flatMap(Target::text);
            addText(in, before.map(anew::and).orElse(anew));
        });
    }

    Outcome outcome(Optional<Replacement.Outside> outside, Optional<SymbolPlaces> symbol) throws IOException {
        List<Outcome.Changed> files = new ArrayList<>();
        long matches = 0;
        long bytes = 0;
        Map<String, List<Map.Entry<InBranch, Target>>> byRepository = targets.entrySet().stream()
                .collect(Collectors.groupingBy(
                        target -> view.branch(target.getKey().branchNumber()).repository(),
                        LinkedHashMap::new,
                        Collectors.toList()));
        for (Map.Entry<String, List<Map.Entry<InBranch, Target>>> of : byRepository.entrySet()) {
            try (MirrorReader mirror = context.mirror(context.repository(of.getKey()))) {
                for (Map.Entry<InBranch, Target> target : of.getValue()) {
                    context.search().budget().demand();
                    Optional<Outcome.Changed> changed = changed(target.getKey(), target.getValue(), mirror);
                    if (changed.isPresent()) {
                        files.add(changed.get());
                        matches += changed.get().edit().map(FileEdit::applied).orElse(0L);
                        bytes += changed.get()
                                .edit()
                                .map(edit -> edit.after().length)
                                .orElse(0);
                    }
                    if (matches > Replacements.MOST_MATCHES || bytes > MOST_BYTES) {
                        throw new TooLargeException("More than " + Replacements.MOST_MATCHES + " matches, or "
                                + MOST_BYTES + " bytes, would change. Narrow the scope or the text.");
                    }
                }
            }
        }
        if (context.search().budget().stop().isPresent()) {
            throw new BusyException("Not all could be looked through in the time a search may take. Narrow it.");
        }
        return new Outcome(files, left, outside, symbol.map(SymbolPlaces::about));
    }

    private Optional<Outcome.Changed> changed(InBranch in, Target target, MirrorReader mirror) throws IOException {
        Branch branch = view.branch(in.branchNumber());
        SnapshotReader snapshot = view.snapshot(in.branchNumber());
        String path = snapshot.path(in.file());
        try {
            checkLeft(branch.repository(), path, snapshot.traits(in.file()));
        } catch (StaysException e) {
            left.add(new Left(branch.repository(), path, e.getMessage()));
            return Optional.empty();
        }
        Optional<String> newPath = Optional.empty();
        Optional<FileEdit> edit = Optional.empty();
        try {
            if (target.path.isPresent()) {
                newPath = target.path.get().of(in.branchNumber(), in.file());
            }
        } catch (StaysException e) {
            left.add(new Left(branch.repository(), path, "it is not renamed: " + e.getMessage()));
        }
        try {
            if (target.text.isPresent()) {
                edit = Optional.of(FileEdit.of(
                        mirror.blob(snapshot.id(in.file())), target.text.get(), choice, branch.repository(), path));
            }
        } catch (StaysException e) {
            left.add(new Left(branch.repository(), path, e.getMessage()));
        } catch (BlobTooLargeException _) {
            left.add(new Left(branch.repository(), path, "it is too large"));
        }
        return newPath.isEmpty() && edit.isEmpty()
                ? Optional.empty()
                : Optional.of(new Outcome.Changed(
                        new At(branch.repository(), branch.name(), branch.commit()), path, newPath, edit));
    }

    private void checkLeft(String repository, String path, int traits) throws StaysException {
        if (choice.leaves(repository) || choice.leaves(Choice.place(repository, path))) {
            throw new StaysException("it was taken out");
        }
        List<String> labels = Traits.labels(traits);
        for (Trait trait : FOREIGN) {
            if (!Boolean.TRUE.equals(wanted.generated()) && labels.contains(trait.label())) {
                throw new StaysException("it is " + (trait == Trait.TRANSLATION ? "a translation" : trait.label())
                        + "; change what it comes from");
            }
        }
    }
}
