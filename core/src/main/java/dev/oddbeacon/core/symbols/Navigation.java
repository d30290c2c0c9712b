package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.meaning.Relatives;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.Spots;
import dev.oddbeacon.core.meaning.UsedNames;
import dev.oddbeacon.core.search.BlobParts;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * From a place in a file to what the name there may mean. Names are resolved as far as the text of the file tells: what
 * it declares itself, what it names in an import, what its repository declares; beyond that by name only, and said so.
 * On default branches, and the branch of the file.
 */
public final class Navigation {
    private static final int MOST = 50;
    private static final int MOST_TYPES = 200;
    private static final int IMPORT_BYTES = 20_000;

    /** The reason why a name may refer to a declaration, the surest first. */
    public enum Reason {
        /** It is the declaration itself. */
        ITSELF("this is the declaration"),
        /** The types that are written say so. */
        TOLD("the types that are written lead here"),
        SPOKEN_FOR("what is written speaks for it"),
        SAME_FILE("declared in this file"),
        IMPORTED("this file imports it"),
        SAME_PACKAGE("declared in the same package"),
        SAME_FOLDER("declared in the same folder"),
        SAME_REPOSITORY("declared in this repository"),
        BY_NAME("by name only");

        private final String words;

        Reason(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A declaration somewhere.
     *
     * @param column of its name, from 1, in UTF-16 units
     */
    public record Target(
            String name,
            Kind kind,
            String container,
            int branchNumber,
            int file,
            int line,
            int column,
            String signature,
            Reason reason) {}

    /**
     * What stands at a place.
     *
     * @param declared what is declared right there, if something is
     * @param declarations what the name may mean, the likeliest first; at most 50
     * @param ownerType the type that a method stands in which is declared there
     * @param supertypes of a type that is declared there: what it extends or implements
     * @param subtypes of such a type: all that name it as what they extend
     * @param family of a method that is declared there: methods of its name in types that its own extends, or that
     * extend it
     * @param meant what is declared there, or the declarations that the name means most likely
     * @param meantWithFamily those and the family of each
     */
    public record At(
            String name,
            Optional<Target> declared,
            Optional<String> ownerType,
            List<Target> declarations,
            List<Target> supertypes,
            List<Target> subtypes,
            List<Target> family,
            List<Spot> meant,
            List<Spot> meantWithFamily) {}

    private final View view;
    private final int branchNumber;
    private final int file;
    private final Spots spots;
    private final UsedNames used;
    private final Relatives relatives;

    public Navigation(View view, int branchNumber, int file) {
        this.view = view;
        this.branchNumber = branchNumber;
        this.file = file;
        this.spots = new Spots(view, branchNumber);
        this.used = new UsedNames(view, branchNumber, file);
        this.relatives = new Relatives(view, branchNumber);
    }

    /**
     * What stands at a place of the file.
     *
     * @param line from 1
     * @param column from 1, in UTF-16 units
     * @return empty if no name stands there
     */
    public Optional<At> at(int line, int column) {
        Optional<View.Location> location = view.location(branchNumber, file);
        if (location.isEmpty()
                || location.get().segment().language(location.get().blob()).isEmpty()) {
            return Optional.empty();
        }
        SegmentReader segment = location.get().segment();
        int blob = location.get().blob();
        Optional<long[]> span = name(segment, blob, line, column);
        if (span.isEmpty()) {
            return Optional.empty();
        }
        String name = new String(
                segment.content()
                        .asSlice(span.get()[0], span.get()[1] - span.get()[0])
                        .toArray(ValueLayout.JAVA_BYTE),
                StandardCharsets.UTF_8);
        Optional<Declared> here = segment.declarations(segment.pieceAt(blob, span.get()[0])).stream()
                .filter(one -> one.nameStart() == span.get()[0] && !one.kind().isUse())
                .findFirst();
        String head = head(segment, blob);
        List<Target> declarations = new ArrayList<>();
        List<Spot> told = here.isPresent() ? List.of() : used.told(span.get()[0]);
        for (Spot spot : withFirst(told, spots(name))) {
            boolean isTold = told.stream().anyMatch(spot::isSameAs);
            declarations.add(target(spot, isTold ? Reason.TOLD : reason(spot, head, here)));
        }
        declarations.sort(Comparator.comparing(Target::reason)
                .thenComparingInt(target -> target.kind() == Kind.PROTOTYPE ? 1 : 0)
                .thenComparingInt(target ->
                        (view.snapshot(target.branchNumber()).traits(target.file()) & (Traits.TESTS | Traits.FOREIGN))
                                        != 0
                                ? 1
                                : 0)
                .thenComparingInt(Target::branchNumber)
                .thenComparingInt(Target::file)
                .thenComparingInt(Target::line));
        Optional<Spot> spot = here.map(one -> new Spot(segment, blob, one, branchNumber, file));
        List<Target> above = spot.filter(one -> one.declared().kind().isType())
                .map(this::supertypes)
                .orElse(List.of());
        List<Target> below = spot.filter(one -> one.declared().kind().isType())
                .map(one -> subtypes(one).stream()
                        .map(type -> target(type, reason(type, head, Optional.empty())))
                        .toList())
                .orElse(List.of());
        List<Spot> family = spot.map(this::family).orElse(List.of());
        List<Spot> meant = spot.map(List::of).orElseGet(() -> told.isEmpty() ? nearest(spots(name), head) : told);
        List<Spot> meantWithFamily = meant;
        for (Spot one : meant) {
            meantWithFamily = withFirst(meantWithFamily, family(one));
        }
        return Optional.of(new At(
                name,
                spot.map(one -> target(one, Reason.ITSELF)),
                spot.flatMap(Navigation::ownerType),
                declarations.subList(0, Math.min(MOST, declarations.size())),
                above,
                below,
                family.stream().map(one -> target(one, Reason.BY_NAME)).toList(),
                meant,
                meantWithFamily));
    }

    /** What declarations stand in, qualified, each once; a repository stands for the outermost, a type for its constructors. */
    public static List<String> containers(View view, List<Spot> declarations) {
        return declarations.stream()
                .filter(spot -> declarations.size() == 1 || !isConstructor(spot))
                .map(spot -> {
                    String container = spot.segment().container(spot.blob(), spot.declared());
                    return container.isEmpty()
                            ? view.branch(spot.branchNumber()).repository()
                            : container;
                })
                .distinct()
                .toList();
    }

    private static boolean isConstructor(Spot spot) {
        return spot.declared().kind().isCallable()
                && ownerType(spot).equals(Optional.of(spot.segment().name(spot.declared())));
    }

    /** Some declarations and then others, each once. */
    private static List<Spot> withFirst(List<Spot> first, List<Spot> others) {
        List<Spot> all = new ArrayList<>(first);
        others.stream()
                .filter(other -> first.stream().noneMatch(other::isSameAs))
                .forEach(all::add);
        return all;
    }

    /** The name around a place, as offsets. */
    private Optional<long[]> name(SegmentReader segment, int blob, int line, int column) {
        long start = segment.start(blob);
        for (int number = 1; number < line && start < segment.end(blob); number++) {
            start = Lines.end(segment.content(), start, segment.end(blob)) + 1;
        }
        long end = Lines.end(segment.content(), Math.min(start, segment.end(blob)), segment.end(blob));
        if (start > end) {
            return Optional.empty();
        }
        String text = Utf8.string(segment.content(), start, end);
        if (column < 1 || column > text.length() + 1) {
            return Optional.empty();
        }
        long at = start + text.substring(0, column - 1).getBytes(StandardCharsets.UTF_8).length;
        for (Declared declared :
                segment.declarations(segment.pieceAt(blob, at))) { // names of keys and headings are no words
            if (declared.nameStart() <= at && at < declared.nameEnd()) {
                return Optional.of(new long[] {declared.nameStart(), declared.nameEnd()});
            }
        }
        Language language = segment.language(blob).orElseThrow();
        long from = at;
        while (from > start && language.isLetter(segment.content().get(ValueLayout.JAVA_BYTE, from - 1))) {
            from--;
        }
        long to = at;
        while (to < end && language.isLetter(segment.content().get(ValueLayout.JAVA_BYTE, to))) {
            to++;
        }
        BlobParts parts = new BlobParts(view);
        parts.begin(segment, blob, branchNumber, file);
        return from < to && parts.isName(from, to) ? Optional.of(new long[] {from, to}) : Optional.empty();
    }

    /** The beginning of the file, where imports stand. */
    private static String head(SegmentReader segment, int blob) {
        return Utf8.string(
                segment.content(),
                segment.start(blob),
                Math.min(segment.end(blob), segment.start(blob) + IMPORT_BYTES));
    }

    private Reason reason(Spot spot, String head, Optional<Declared> here) {
        if (spot.branchNumber() == branchNumber && spot.file() == file) {
            return here.isPresent() && here.get().nameStart() == spot.declared().nameStart()
                    ? Reason.ITSELF
                    : Reason.SAME_FILE;
        }
        String path = view.snapshot(spot.branchNumber()).path(spot.file());
        String own = view.snapshot(branchNumber).path(file);
        if (isImported(head, path, spot)) {
            return Reason.IMPORTED;
        }
        if (isSamePackage(head, spot)) {
            return Reason.SAME_PACKAGE;
        }
        boolean sameRepository = view.branch(spot.branchNumber())
                .repository()
                .equals(view.branch(branchNumber).repository());
        return !sameRepository
                ? Reason.BY_NAME
                : folder(path).equals(folder(own)) ? Reason.SAME_FOLDER : Reason.SAME_REPOSITORY;
    }

    private static String folder(String path) {
        return path.substring(0, path.lastIndexOf('/') + 1);
    }

    /** Whether the file says that it is in the package that a declaration stands in. */
    private static boolean isSamePackage(String head, Spot spot) {
        String container = spot.segment().container(spot.blob(), spot.declared());
        return !container.isEmpty()
                && head.lines()
                        .map(String::strip)
                        .anyMatch(line ->
                                line.equals("package " + container + ";") || line.equals("package " + container));
    }

    /** Whether an import, include or require of the file names the container or the file of a declaration. */
    private static boolean isImported(String head, String path, Spot spot) {
        String fileName = path.substring(path.lastIndexOf('/') + 1);
        String stem = fileName.contains(".") ? fileName.substring(0, fileName.indexOf('.')) : fileName;
        String container = spot.segment().container(spot.blob(), spot.declared());
        String name = spot.segment().name(spot.declared());
        for (String line : head.lines().toList()) {
            String trimmed = line.strip();
            boolean isImport = trimmed.startsWith("import")
                    || trimmed.startsWith("#include")
                    || trimmed.startsWith("from ")
                    || trimmed.startsWith("use ")
                    || trimmed.startsWith("using ")
                    || trimmed.contains("require")
                    || trimmed.startsWith("export ") && trimmed.contains(" from ")
                    || trimmed.startsWith("\"") && trimmed.endsWith("\"")
                    || trimmed.startsWith("} from");
            if (isImport
                    && (trimmed.contains("/" + fileName)
                            || trimmed.contains("\"" + fileName)
                            || !container.isEmpty()
                                    && (trimmed.contains(container + "." + name)
                                            || trimmed.contains(container + ".*")
                                            || trimmed.endsWith(container)
                                            || trimmed.endsWith(container + ";"))
                            || (trimmed.contains("/" + stem + "'")
                                    || trimmed.contains("/" + stem + "\"")
                                    || trimmed.contains("." + stem + " ")
                                    || trimmed.contains("from " + stem + " ")
                                    || trimmed.contains("import " + stem)))) {
                return true;
            }
        }
        return false;
    }

    /** Declarations, with where they stand. */
    public static List<Target> targets(List<Spot> spots) {
        return spots.stream().map(spot -> target(spot, Reason.ITSELF)).toList();
    }

    /** A declaration, with where it stands. */
    static Target target(Spot spot, Reason reason) {
        SegmentReader segment = spot.segment();
        Declared one = spot.declared();
        long lineStart = Lines.start(segment.content(), one.nameStart(), segment.start(spot.blob()));
        return new Target(
                segment.name(one),
                one.kind(),
                segment.container(spot.blob(), one),
                spot.branchNumber(),
                spot.file(),
                segment.lineNumber(spot.blob(), one.nameStart()),
                Utf8.string(segment.content(), lineStart, one.nameStart()).length() + 1,
                Signature.of(segment, spot.blob(), one),
                reason);
    }

    /** The declarations of a name: the first of them. */
    private List<Spot> spots(String name) {
        return few(spots.of(name));
    }

    private List<Spot> subtypes(Spot type) {
        return few(Relatives.tells(type) ? relatives.below(type) : spots.subtypesOf(type.name()));
    }

    private static List<Spot> few(List<Spot> all) {
        return all.subList(0, Math.min(MOST_TYPES, all.size()));
    }

    /** The names that a type says it extends. */
    private static Set<String> supertypeNames(Spot type) {
        Set<String> names = new LinkedHashSet<>();
        for (Declared one : all(type)) {
            if (one.kind() == Kind.SUPERTYPE && one.parent() == type.declared().number()) {
                names.add(type.segment().name(one));
            }
        }
        return names;
    }

    private static List<Declared> all(Spot spot) {
        List<Declared> all = new ArrayList<>();
        for (int piece = spot.segment().firstPiece(spot.blob());
                piece < spot.segment().firstPiece(spot.blob() + 1);
                piece++) {
            if (spot.segment().pieceStart(piece) < spot.declared().end()) {
                all.addAll(spot.segment().declarations(piece));
            }
        }
        return all;
    }

    private List<Target> supertypes(Spot type) {
        List<Target> result = new ArrayList<>();
        String head = head(type.segment(), type.blob());
        if (Relatives.tells(type)) {
            relatives.above(type).forEach(spot -> result.add(target(spot, reason(spot, head, Optional.empty()))));
            return result;
        }
        for (String name : supertypeNames(type)) {
            nearest(
                            spots(name).stream()
                                    .filter(spot -> spot.declared().kind().isType())
                                    .toList(),
                            head)
                    .forEach(spot -> result.add(target(spot, reason(spot, head, Optional.empty()))));
        }
        return result;
    }

    /** The likeliest types among several of one name. */
    private List<Spot> nearest(List<Spot> spots, String head) {
        Optional<Reason> best =
                spots.stream().map(spot -> reason(spot, head, Optional.empty())).min(Comparator.naturalOrder());
        return spots.stream()
                .filter(spot -> reason(spot, head, Optional.empty()) == best.get())
                .toList();
    }

    private static Optional<String> ownerType(Spot spot) {
        if (!spot.declared().kind().isCallable() || spot.declared().parent() < 0) {
            return Optional.empty();
        }
        return Optional.of(
                        spot.segment().declaration(spot.blob(), spot.declared().parent()))
                .filter(owner -> owner.kind().isType())
                .map(spot.segment()::name);
    }

    /** The methods that a method overrides, as far as names tell. */
    public List<Spot> overridden(Spot method) {
        return Relatives.tells(method) ? few(relatives.overridden(method)) : related(method, false);
    }

    /** Methods of one name in the types above and below. */
    private List<Spot> family(Spot method) {
        return Relatives.tells(method) ? few(relatives.family(method)) : related(method, true);
    }

    /** By names alone: methods of the same name in types above, and in those below and beside if these are wanted. */
    private List<Spot> related(Spot method, boolean withSubtypes) {
        if (method.declared().kind() != Kind.METHOD || method.declared().parent() < 0) {
            return List.of();
        }
        Declared owner =
                method.segment().declaration(method.blob(), method.declared().parent());
        if (!owner.kind().isType()) {
            return List.of();
        }
        Map<String, Spot> types = new LinkedHashMap<>();
        List<Spot> open = new ArrayList<>(
                List.of(new Spot(method.segment(), method.blob(), owner, method.branchNumber(), method.file())));
        while (!open.isEmpty() && types.size() < MOST_TYPES) {
            Spot type = open.removeLast();
            if (types.put(
                            type.branchNumber() + ":" + type.file() + ":"
                                    + type.declared().number(),
                            type)
                    != null) {
                continue;
            }
            for (String name : supertypeNames(type)) {
                open.addAll(nearest(
                        spots(name).stream()
                                .filter(spot -> spot.declared().kind().isType())
                                .toList(),
                        head(type.segment(), type.blob())));
            }
            if (withSubtypes) {
                open.addAll(subtypes(type));
            }
        }
        String name = method.segment().name(method.declared());
        List<Spot> result = new ArrayList<>();
        for (Spot type : types.values()) {
            for (Declared one : all(type)) {
                boolean itself = type.branchNumber() == method.branchNumber()
                        && type.file() == method.file()
                        && one.number() == method.declared().number();
                if (!itself
                        && one.parent() == type.declared().number()
                        && one.kind().isCallable()
                        && type.segment().name(one).equals(name)) {
                    result.add(new Spot(type.segment(), type.blob(), one, type.branchNumber(), type.file()));
                }
            }
        }
        return result;
    }
}
