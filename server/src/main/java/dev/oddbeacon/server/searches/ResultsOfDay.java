package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.lines.FindInText;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.text.TextDecoder;
import dev.oddbeacon.git.BlobTooLargeException;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.lines.LineParameters;
import dev.oddbeacon.server.results.Changes;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Which results of a search were not there yet on some day: Git knows what the files were that have changed since. In those,
 * a plain text or a regular expression is looked for; for other searches, an earlier line is the same if its text is.
 */
final class ResultsOfDay {
    private static final int MOST_MATCHES = 100_000; // of one file

    private final CallerContext context;
    private final KnownSearch search;
    private final Instant day;

    ResultsOfDay(CallerContext context, KnownSearch search, Instant day) {
        this.context = context;
        this.search = search;
        this.day = day;
    }

    /** A branch of a repository, at a commit. */
    private record At(String repository, String branch, String commit) {}

    /** Those of the results that have come since. */
    List<Result> cameSince(List<Result> now) throws IOException {
        Map<At, List<Result>> byBranch = now.stream()
                .collect(Collectors.groupingBy(
                        result -> new At(
                                result.repository(),
                                Optional.ofNullable(result.branch()).orElse(""),
                                result.path() == null ? "" : result.commit()),
                        java.util.LinkedHashMap::new,
                        Collectors.toList()));
        Set<Result> came = new HashSet<>();
        for (Map.Entry<At, List<Result>> of : byBranch.entrySet()) {
            context.search().budget().demand();
            try (MirrorReader mirror = context.mirror(context.repository(of.getKey().repository))) {
                came.addAll(
                        search.subject() == Subject.COMMITS
                                ? newCommits(mirror, of.getValue())
                                : cameSince(mirror, of.getKey(), of.getValue()));
            }
        }
        return now.stream().filter(came::contains).toList();
    }

    private List<Result> newCommits(MirrorReader mirror, List<Result> commits) throws IOException {
        List<Result> young = new ArrayList<>();
        for (Result result : commits) {
            Optional<MirrorReader.Revision> commit = mirror.commit(result.commit());
            if (commit.isEmpty() || !commit.get().committed().isBefore(day)) {
                young.add(result);
            }
        }
        return young;
    }

    private List<Result> cameSince(MirrorReader mirror, At at, List<Result> results) throws IOException {
        ObjectId now = ObjectId.of(at.commit);
        Optional<ObjectId> then = mirror.commitAt(now, day);
        if (then.isEmpty()) {
            return results;
        }
        Map<String, PathChange> changes = new HashMap<>();
        for (PathChange change : mirror.changes(then, now)) {
            changes.put(change.path(), change);
        }
        List<Result> inChanged = results.stream()
                .filter(result -> changes.containsKey(result.path()))
                .toList();
        if (search.subject() == Subject.FILES || inChanged.isEmpty()) {
            return inChanged.stream()
                    .filter(result -> changes.get(result.path()).kind() != PathChange.Kind.MODIFIED)
                    .toList();
        }
        List<Result> before = new ArrayList<>();
        Set<String> texts = inChanged.stream()
                .filter(result -> result.text() != null)
                .map(result -> result.text().strip())
                .collect(Collectors.toSet());
        for (PathChange change : changes.values()) {
            if (change.kind() != PathChange.Kind.ADDED && change.isFile()) {
                context.search().budget().demand();
                String path = change.kind() == PathChange.Kind.RENAMED ? change.from() : change.path();
                before.addAll(earlier(mirror, at, path, change.before(), texts, inChanged));
            }
        }
        return Changes.between(before, inChanged).came();
    }

    /** What the search would have found in a file as it was. */
    private List<Result> earlier(
            MirrorReader mirror, At at, String path, ObjectId blob, Set<String> texts, List<Result> now)
            throws IOException {
        Optional<TextDecoder.Text> decoded;
        try {
            decoded = TextDecoder.decode(mirror.blob(blob));
        } catch (BlobTooLargeException e) {
            return List.of();
        }
        if (decoded.isEmpty()) {
            return List.of();
        }
        String text = new String(decoded.get().utf8(), StandardCharsets.UTF_8);
        Optional<List<FindInText.Match>> matches = matches(decoded.get().utf8());
        List<Result> found = new ArrayList<>();
        int next = 0; // match
        int start = 0;
        for (int number = 1; start < text.length(); number++) {
            int feed = text.indexOf('\n', start);
            int end = feed < 0 ? text.length() : feed;
            String line = text.substring(start, end);
            boolean isFound = false;
            if (matches.isPresent()) {
                while (next < matches.get().size() && matches.get().get(next).start() < end) {
                    isFound |= matches.get().get(next++).end() > start;
                }
            } else {
                isFound = texts.contains(line.strip());
            }
            if (isFound) {
                found.add(result(at, path, number, line, now));
            }
            start = end + 1;
        }
        return found;
    }

    /** Of a symbol it is the same one if it has a name that stands in a line of that text now. */
    private static Result result(At at, String path, int number, String line, List<Result> now) {
        String name = now.stream()
                .filter(result -> result.name() != null
                        && result.text() != null
                        && result.text().strip().equals(line.strip()))
                .map(Result::name)
                .findFirst()
                .orElse(null);
        return new Result(at.repository, at.branch, at.commit, path, number, name, line);
    }

    /** Empty for searches whose text is more than one text. */
    private Optional<List<FindInText.Match>> matches(byte[] utf8) {
        if (!(Subjects.filled(search.subject(), search.parameters()) instanceof LineParameters lines)
                || Boolean.TRUE.equals(lines.without())) {
            return Optional.empty();
        }
        TextQuery query = lines.textQuery();
        return query.reading() == Reading.EXPRESSION
                ? Optional.empty()
                : Optional.of(FindInText.of(
                        query, utf8, MOST_MATCHES, context.search().budget()::isOver));
    }
}
