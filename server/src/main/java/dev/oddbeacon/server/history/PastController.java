package dev.oddbeacon.server.history;

import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitPage;
import dev.oddbeacon.api.LogAnswer;
import dev.oddbeacon.api.RevisionsAnswer;
import dev.oddbeacon.core.history.Blame;
import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.history.PastObjects;
import dev.oddbeacon.core.history.PathLog;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.history.diff.TextLines;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Revisions;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.wire.CommitInfos;
import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/repositories/{name}/...}: the past of files and folders, commits, branches and tags. */
@RestController
@RequestMapping("/api/v1/repositories/{name}")
class PastController {
    private static final int MOST_ENTRIES = 1_000;
    private static final int MOST_REVISIONS = 200;
    private static final String IGNORED = ".git-blame-ignore-revs";

    private final Contexts contexts;
    private final Origins origins;

    PastController(Contexts contexts, Origins origins) {
        this.contexts = contexts;
        this.origins = origins;
    }

    /** A commit of the index, and what is needed to look back from it. */
    private record Start(
            String name, View view, MirrorReader mirror, Past past, Mailmap mailmap, int commit, Budget budget) {
        /** Trees and blobs, as long as there is time. */
        PastObjects within(PastObjects objects) {
            return new PastObjects() {
                @Override
                public Optional<ObjectId> at(ObjectId commit, String path) throws IOException {
                    budget.demand();
                    return objects.at(commit, path);
                }

                @Override
                public byte[] blob(ObjectId id) throws IOException {
                    budget.demand();
                    return objects.blob(id);
                }
            };
        }

        CommitInfo info(int number) {
            return CommitInfos.listed(name, past.graph().commit(number), mailmap);
        }
    }

    private interface Asked<T> {
        T of(Start start) throws IOException;
    }

    private <T> T from(Caller caller, String name, String rev, Asked<T> asked) throws IOException {
        try (CallerContext context = contexts.open(caller);
                MirrorReader mirror = context.mirror(context.repository(name))) {
            Repository repository = context.repository(name);
            View view = context.view();
            ObjectId id = Revisions.commit(context, repository, mirror, rev);
            Past past = view.past(name);
            int commit = past.graph().find(id);
            if (commit == CommitGraph.UNKNOWN) {
                throw new NotFoundException(
                        "The past of " + (rev.isEmpty() ? name : rev + " of " + name) + " is not indexed"
                                + (context.isPastIncomplete(repository)
                                        ? " yet; it is being read. Try again in a moment."
                                        : ": of branches that are not indexed only files and differences can be shown."));
            }
            return asked.of(new Start(
                    name,
                    view,
                    mirror,
                    past,
                    view.mailmap(name),
                    commit,
                    context.search().budget()));
        }
    }

    @Operation(
            summary = "The commits that changed a file or a folder",
            description =
                    "The newest first; without a path, all commits. A renamed file is followed unless follow=false.")
    @GetMapping("/log")
    LogAnswer log(
            Caller caller,
            @PathVariable String name,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "") String rev,
            @RequestParam(defaultValue = "true") boolean follow,
            @RequestParam(required = false) Integer limit,
            @RequestParam(required = false) Integer cursor)
            throws IOException {
        String wanted = Split.strip(path, '/');
        int most = Parameters.range("limit", limit, 100, 1, MOST_ENTRIES);
        int passed = Parameters.range("cursor", cursor, 0, 0, Integer.MAX_VALUE - MOST_ENTRIES - 1);
        return from(caller, name, rev, start -> {
            try (MirrorReader.Objects objects = start.mirror.objects()) {
                List<PathLog.Step> steps = new PathLog(start.past, start.within(objects), follow)
                        .steps(start.commit, wanted, passed + most + 1);
                if (steps.isEmpty() && !wanted.isEmpty()) {
                    throw new NotFoundException("No commit before " + (rev.isEmpty() ? "the default branch" : rev)
                            + " of " + name + " changed " + wanted + ". Paths start at the repository's root.");
                }
                List<LogAnswer.Entry> entries =
                        steps.subList(Math.min(passed, steps.size()), Math.min(passed + most, steps.size())).stream()
                                .map(step -> new LogAnswer.Entry(
                                        start.info(step.commit()),
                                        step.path(),
                                        step.from().equals(step.path()) ? null : step.from(),
                                        step.kind().map(PathChange.Kind::label).orElse(null),
                                        step.added(),
                                        step.removed()))
                                .toList();
                return new LogAnswer(
                        name,
                        wanted,
                        start.past.graph().id(start.commit).toString(),
                        entries,
                        steps.size() > passed + most ? String.valueOf(passed + most) : null);
            }
        });
    }

    @Operation(
            summary = "Where each line of a file comes from",
            description =
                    "ignoreSpace: white space counts nowhere. Commits that the file .git-blame-ignore-revs lists are looked through unless ignoreListed=false.")
    @GetMapping("/blame")
    BlameAnswer blame(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev,
            @RequestParam(defaultValue = "false") boolean ignoreSpace,
            @RequestParam(defaultValue = "true") boolean ignoreListed)
            throws IOException {
        return from(caller, name, rev, start -> {
            try (MirrorReader.Objects objects = start.mirror.objects()) {
                ObjectId commit = start.past.graph().id(start.commit);
                Optional<ObjectId> blob = start.mirror
                        .entry(commit.toString(), path)
                        .filter(entry -> entry.kind() != SourceTree.Kind.SUBMODULE)
                        .map(SourceTree.Entry::id);
                if (blob.isEmpty()) {
                    throw new NotFoundException(
                            "There is no file " + path + " at " + (rev.isEmpty() ? "the default branch" : rev) + " of "
                                    + name + ". Paths start at the repository's root.");
                }
                if (TextLines.isBinary(objects.blob(blob.get()))) {
                    throw new NotFoundException(path + " is binary and has no lines.");
                }
                Set<ObjectId> ignored = ignoreListed ? ignored(objects, commit) : Set.of();
                List<Blame.Origin> found = origins.of(
                        new Origins.Key(name, commit, path, ignoreSpace, ignored),
                        () -> new Blame(
                                        start.past,
                                        start.within(objects),
                                        ignoreSpace ? TextLines.Sameness.WITHOUT_SPACE : TextLines.Sameness.EXACT,
                                        ignored)
                                .of(start.commit, path));
                Map<Integer, CommitInfo> infos = new HashMap<>();
                return new BlameAnswer(
                        name,
                        path,
                        commit.toString(),
                        found.stream()
                                .map(origin -> origin(start, origin, infos))
                                .toList());
            }
        });
    }

    private static BlameAnswer.Origin origin(Start start, Blame.Origin origin, Map<Integer, CommitInfo> infos) {
        CommitInfo info = infos.computeIfAbsent(origin.commit(), start::info);
        CommitGraph graph = start.past.graph();
        BlameAnswer.Previous previous = origin.before().isEmpty() || graph.parentCount(origin.commit()) == 0
                ? null
                : new BlameAnswer.Previous(
                        info.parents().getFirst(), origin.before().get());
        return new BlameAnswer.Origin(
                origin.fromLine(),
                origin.toLine(),
                info.id(),
                info.author(),
                info.authored(),
                info.summary(),
                origin.path(),
                origin.line(),
                previous);
    }

    /** Commits that only moved or formatted things, as the repository lists them. */
    private static Set<ObjectId> ignored(MirrorReader.Objects objects, ObjectId commit) throws IOException {
        Optional<ObjectId> list = objects.at(commit, IGNORED);
        Set<ObjectId> ignored = new HashSet<>();
        if (list.isPresent()) {
            new String(objects.blob(list.get()), StandardCharsets.UTF_8)
                    .lines()
                    .map(line -> Split.parts(line, '#', 2).getFirst().strip())
                    .filter(line -> ObjectId.isId(line))
                    .map(ObjectId::of)
                    .forEach(ignored::add);
        }
        return ignored;
    }

    @Operation(
            summary = "A commit",
            description = "With the branches and tags that contain it. id may be its beginning, or any other revision.")
    @GetMapping("/commits/{id}")
    CommitPage commit(Caller caller, @PathVariable String name, @PathVariable String id) throws IOException {
        try (CallerContext context = contexts.open(caller);
                MirrorReader mirror = context.mirror(context.repository(name))) {
            View view = context.view();
            ObjectId commit = Revisions.commit(context, context.repository(name), mirror, id);
            CommitGraph graph = view.past(name).graph();
            int number = graph.find(commit);
            Commit found = number == CommitGraph.UNKNOWN ? mirror.commit(commit) : graph.commit(number);
            List<String> branches = new ArrayList<>();
            List<String> tags = new ArrayList<>();
            BitSet after = number == CommitGraph.UNKNOWN ? new BitSet() : graph.descendants(number);
            for (MirrorReader.Named named : mirror.names()) {
                int tip = graph.find(named.commit());
                boolean contains = number != CommitGraph.UNKNOWN && tip != CommitGraph.UNKNOWN
                        ? after.get(tip)
                        : mirror.isBefore(commit, named.commit());
                if (contains) {
                    (named.isTag() ? tags : branches).add(named.name());
                }
            }
            List<String> children = number == CommitGraph.UNKNOWN
                    ? List.of()
                    : after.stream()
                            .filter(other -> isParent(graph, number, other))
                            .mapToObj(other -> graph.id(other).toString())
                            .toList();
            return new CommitPage(CommitInfos.info(name, found, view.mailmap(name)), branches, tags, children);
        }
    }

    private static boolean isParent(CommitGraph graph, int parent, int child) {
        for (int i = 0; i < graph.parentCount(child); i++) {
            if (graph.parent(child, i) == parent) {
                return true;
            }
        }
        return false;
    }

    @Operation(
            summary = "Branches and tags",
            description = "By a few letters, each word anywhere in the name; the latest first, at most 200.")
    @GetMapping("/revisions")
    RevisionsAnswer revisions(Caller caller, @PathVariable String name, @RequestParam(defaultValue = "") String q)
            throws IOException {
        try (CallerContext context = contexts.open(caller);
                MirrorReader mirror = context.mirror(context.repository(name))) {
            View view = context.view();
            List<String> words = Split.words(q.toLowerCase(Locale.ROOT));
            List<MirrorReader.Named> found = mirror.names().stream()
                    .filter(named -> words.stream().allMatch(named.name().toLowerCase(Locale.ROOT)::contains))
                    .sorted(Comparator.comparing(MirrorReader.Named::committed)
                            .reversed()
                            .thenComparing(MirrorReader.Named::name))
                    .toList();
            Mailmap mailmap = view.mailmap(name);
            List<RevisionsAnswer.Revision> told = new ArrayList<>();
            for (MirrorReader.Named named : found.subList(0, Math.min(MOST_REVISIONS, found.size()))) {
                told.add(new RevisionsAnswer.Revision(
                        named.name(),
                        named.isTag() ? "tag" : "branch",
                        named.commit().toString(),
                        named.committed(),
                        mailmap.proper(mirror.commit(named.commit()).author()).name(),
                        named.summary(),
                        view.branchNumber(name, named.name()).isPresent()));
            }
            return new RevisionsAnswer(name, found.size(), told);
        }
    }
}
