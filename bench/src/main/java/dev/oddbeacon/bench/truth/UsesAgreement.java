package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.ingest.Ingest;
import dev.oddbeacon.core.ingest.IngestProgress;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.Spots;
import dev.oddbeacon.core.meaning.UseJudge;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.ToLongFunction;
import java.util.stream.Stream;

/** Holds what we say of uses against what a compiler says, for declarations drawn from a folder of sources. */
final class UsesAgreement {
    /** By kind of declaration: what was counted. */
    static final class Counts {
        int declarations;
        int uses;
        final int[] said = new int[Certainty.values().length];
        final int[] right = new int[Certainty.values().length];

        /** The part of what was said to be so sure that is right. */
        double precision(Certainty certainty) {
            int all = said[certainty.ordinal()];
            return all == 0 ? 1 : right[certainty.ordinal()] / (double) all;
        }

        /** The part of the uses that was said to be so sure, or surer. */
        double recall(Certainty least) {
            int found = 0;
            for (int i = 0; i <= least.ordinal(); i++) {
                found += right[i];
            }
            return uses == 0 ? 1 : found / (double) uses;
        }
    }

    private final Map<String, Counts> byKind = new LinkedHashMap<>();
    private final List<String> examples = new ArrayList<>();
    private long nanos;
    private int asked;

    Map<String, Counts> byKind() {
        return byKind;
    }

    List<String> examples() {
        return examples;
    }

    double microsEach() {
        return nanos / 1_000.0 / Math.max(1, asked);
    }

    /**
     * Draws declarations and compares all uses of their names.
     *
     * @param most declarations of each kind
     */
    void add(Path folder, CompilerUses told, int most, long seed, Path scratch) throws IOException {
        View view = view(folder, scratch);
        Map<CompilerUses.Place, List<CompilerUses.Use>> byDeclaration = new HashMap<>();
        Map<CompilerUses.Place, CompilerUses.Place> byPlace = new HashMap<>();
        Set<CompilerUses.Place> elsewhere = told.elsewhere();
        for (CompilerUses.Use use : told.uses()) {
            byDeclaration
                    .computeIfAbsent(use.declaration(), _ -> new ArrayList<>())
                    .add(use);
            byPlace.put(use.place(), use.declaration());
        }
        for (String kind : List.of("method", "field", "function")) {
            List<CompilerUses.Place> all = new ArrayList<>(byDeclaration.keySet().stream()
                    .filter(place -> byDeclaration.get(place).getFirst().kind().equals(kind))
                    .sorted()
                    .toList());
            Collections.shuffle(all, new Random(seed));
            for (CompilerUses.Place declaration : all.subList(0, Math.min(most, all.size()))) {
                one(view, kind, declaration, byDeclaration.get(declaration), byPlace, elsewhere);
            }
        }
        view.release();
    }

    private void one(
            View view,
            String kind,
            CompilerUses.Place declaration,
            List<CompilerUses.Use> uses,
            Map<CompilerUses.Place, CompilerUses.Place> byPlace,
            Set<CompilerUses.Place> elsewhere) {
        String name = uses.getFirst().name();
        List<Spot> targets = new Spots(view, 0)
                .of(name).stream()
                        .filter(spot -> place(
                                        view,
                                        spot.segment(),
                                        spot.blob(),
                                        spot.file(),
                                        spot.declared().nameStart())
                                .equals(declaration))
                        .toList();
        if (targets.isEmpty()) {
            examples.add("not declared here: " + name + " " + declaration);
            return;
        }
        Counts counts = byKind.computeIfAbsent(kind, _ -> new Counts());
        counts.declarations++;
        counts.uses += uses.size();
        UseJudge judge = UseJudge.of(view, targets);
        byte[] utf8 = name.getBytes(StandardCharsets.UTF_8);
        Set<CompilerUses.Place> met = new HashSet<>();
        for (SegmentReader segment : view.segments()) {
            segment.names().occurrences(utf8, (piece, _, _, _, _) -> {
                int blob = segment.blobOf(piece);
                view.forEachPlace(segment, blob, (_, file) -> {
                    for (long at : occurrences(segment, piece, utf8)) {
                        CompilerUses.Place place = place(view, segment, blob, file, at);
                        boolean isUse = declaration.equals(byPlace.get(place));
                        if (!isUse && !byPlace.containsKey(place) && !elsewhere.contains(place) || !met.add(place)) {
                            continue; // the compiler knows nothing of it
                        }
                        long start = System.nanoTime();
                        Certainty certainty = judge.of(name, 0, file, at);
                        nanos += System.nanoTime() - start;
                        asked++;
                        counts.said[certainty.ordinal()]++;
                        counts.right[certainty.ordinal()] += isUse ? 1 : 0;
                        if (isUse && certainty == Certainty.BY_NAME || !isUse && certainty == Certainty.SURE) {
                            examples.add((isUse ? "MISSED " : "WRONG  ") + name + " " + place + " of " + declaration
                                    + (isUse ? "" : " is " + byPlace.get(place)));
                        }
                    }
                });
            });
        }
        for (CompilerUses.Use use : uses) {
            if (!met.contains(use.place())) {
                examples.add("UNSEEN " + name + " " + use.place());
            }
        }
    }

    private static List<Long> occurrences(SegmentReader segment, int piece, byte[] name) {
        List<Long> found = new ArrayList<>();
        long end = segment.pieceEnd(piece);
        for (long at = segment.pieceStart(piece); at + name.length <= end; at++) {
            if (segment.content().asSlice(at, name.length).mismatch(java.lang.foreign.MemorySegment.ofArray(name)) < 0
                    && !isLetter(segment, at - 1)
                    && !isLetter(segment, at + name.length)) {
                found.add(at);
            }
        }
        return found;
    }

    private static boolean isLetter(SegmentReader segment, long at) {
        return at >= 0
                && at < segment.content().byteSize()
                && Character.isJavaIdentifierPart(segment.content().get(java.lang.foreign.ValueLayout.JAVA_BYTE, at));
    }

    static CompilerUses.Place place(View view, SegmentReader segment, int blob, int file, long offset) {
        return new CompilerUses.Place(
                view.snapshot(0).path(file),
                segment.lineNumber(blob, offset),
                Utf8.string(segment.content(), Lines.start(segment.content(), offset, segment.start(blob)), offset)
                                .length()
                        + 1);
    }

    static View view(Path folder, Path scratch) throws IOException {
        Ingest.Ingested done = new Ingest(NewFiles.in(scratch), 32 << 20, 2, "")
                .run(new FolderTree(folder), ViewBuilder.empty(), new IngestProgress(), () -> false);
        Branch branch = new Branch("sources", Set.of(), "main", "0".repeat(40), Instant.EPOCH, true);
        return ViewBuilder.next(
                ViewBuilder.empty(), done.segments(), List.of(new ViewBuilder.Wanted(branch, done.snapshot())));
    }

    /** The files below a folder. */
    private static final class FolderTree implements SourceTree {
        private final Path folder;
        private final Map<ObjectId, Path> paths = new HashMap<>();

        FolderTree(Path folder) {
            this.folder = folder;
        }

        @Override
        public List<Entry> entries(ToLongFunction<ObjectId> knownBytes) throws IOException {
            List<Entry> entries = new ArrayList<>();
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path path : all.filter(Files::isRegularFile).toList()) {
                    ObjectId id = new ObjectId(7, paths.size(), 0);
                    paths.put(id, path);
                    entries.add(new Entry(folder.relativize(path).toString(), id, Kind.FILE, Files.size(path)));
                }
            }
            entries.sort(java.util.Comparator.comparing(
                    Entry::path,
                    java.util.Comparator.comparing(
                            path -> path.getBytes(StandardCharsets.UTF_8), java.util.Arrays::compareUnsigned)));
            return entries;
        }

        @Override
        public Blobs blobs() {
            return new Blobs() {
                @Override
                public byte[] read(ObjectId id) throws IOException {
                    return Files.readAllBytes(paths.get(id));
                }

                @Override
                public void close() {}
            };
        }
    }
}
