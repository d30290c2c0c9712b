package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The types that are declared in the index, as seen from a branch: found by the names that a file gives them, with
 * their members and what they extend. What was read is kept. For one thread.
 */
final class Types {
    private static final int MOST_TOKENS = 1_000_000;
    private static final int MOST_KEPT = 20_000;
    private static final int MOST_SUPERTYPES = 200;
    private static final int DEEPEST = 20;

    private record Contained(Spot spot, String container) {}

    private final View view;
    private final int branchNumber;
    private final Spots spots;
    private final Map<String, List<Spot>> byName = bounded();
    private final Map<String, List<Contained>> contained = bounded();
    private final Map<String, Optional<Modules>> modules = new HashMap<>();
    private final Map<Long, Optional<CodeFile>> files = new LinkedHashMap<>(16, 0.75f, true);
    private final Map<Spot, TypeDeclaration> declarations = bounded();
    private final Map<Type.Known, Above> above = bounded();
    private long tokens;

    Types(View view, int branchNumber) {
        this.view = view;
        this.branchNumber = branchNumber;
        this.spots = new Spots(view, branchNumber);
    }

    /** A map that forgets what was not asked for lately. */
    private static <K, V> Map<K, V> bounded() {
        return new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
                return size() > MOST_KEPT;
            }
        };
    }

    /** A file of a language that has names; empty for others. */
    Optional<CodeFile> file(int branch, int file) {
        long key = (long) branch << 32 | file;
        Optional<CodeFile> known = files.get(key);
        if (known == null) {
            known = view.location(branch, file).flatMap(location -> {
                SegmentReader segment = location.segment();
                Optional<Language> language = segment.language(location.blob());
                return language.filter(Language::hasNames)
                        .map(one -> new CodeFile(segment, location.blob(), one, branch, file));
            });
            files.put(key, known);
            tokens += known.map(one -> one.code().count()).orElse(0);
            while (tokens > MOST_TOKENS && files.size() > 1) {
                var eldest = files.entrySet().iterator();
                tokens -=
                        eldest.next().getValue().map(one -> one.code().count()).orElse(0);
                eldest.remove();
            }
        }
        return known;
    }

    /** Whether the types of the language of a file are read. */
    static boolean isRead(CodeFile file) {
        return Manner.of(file.language()).isPresent();
    }

    /** Whether what a type has is told apart by names alone. */
    boolean isOneSpace(TypeDeclaration type) {
        return is(type, Manner.Trait.ONE_SPACE);
    }

    private boolean is(TypeDeclaration type, Manner.Trait trait) {
        return file(type.spot().branchNumber(), type.spot().file())
                .flatMap(file -> Manner.of(file.language()))
                .filter(manner -> manner.is(trait))
                .isPresent();
    }

    static Manner manner(CodeFile file) {
        return Manner.of(file.language()).orElseThrow();
    }

    /** A type that a file declares. */
    TypeDeclaration declaration(Spot spot) {
        TypeDeclaration known = declarations.get(spot);
        if (known != null) {
            return known;
        }
        TypeDeclaration read = file(spot.branchNumber(), spot.file())
                .filter(Types::isRead)
                .map(file -> read(file, spot))
                .orElseGet(() -> TypeDeclaration.unread(spot));
        declarations.put(spot, read);
        return read;
    }

    private static TypeDeclaration read(CodeFile file, Spot spot) {
        Manner manner = manner(file);
        Map<String, List<Member>> members = new HashMap<>();
        Map<String, Spot> nested = new HashMap<>();
        List<TypeName> supertypes = new ArrayList<>();
        for (Declared one : file.declarations()) {
            if (one.parent() != spot.declared().number()) {
                continue;
            }
            if (one.kind() == Kind.SUPERTYPE) {
                manner.type(file.code(), file.code().firstPart(file.nameToken(one)))
                        .ifPresent(supertypes::add);
            } else if (one.kind().isType()) {
                nested.putIfAbsent(file.name(one), file.spot(one));
            } else if (!one.kind().isUse()) {
                members.computeIfAbsent(file.name(one), _ -> new ArrayList<>()).add(manner.member(file, one));
            }
        }
        Optional<TypeName> underlying = manner.underlying(file, spot.declared());
        underlying.filter(one -> one.dimensions() == 0).ifPresent(supertypes::add);
        return new TypeDeclaration(
                spot, manner.variables(file, spot.declared()), supertypes, underlying, members, nested);
    }

    /** The members of a name that a type has itself. */
    List<Member> members(TypeDeclaration type, String name) {
        List<Member> inside = type.members().getOrDefault(name, List.of());
        Optional<CodeFile> file = file(type.spot().branchNumber(), type.spot().file());
        if (!inside.isEmpty() || file.isEmpty() || !is(type, Manner.Trait.METHODS_OUTSIDE)) {
            return inside;
        }
        String owner = type.spot().name();
        return spots(name).stream()
                .filter(spot -> spot.declared().qualifierEnd() > spot.declared().qualifierStart()
                        && spot.container().equals(owner)
                        && isOwn(file.get(), spot))
                .flatMap(spot -> member(spot).stream())
                .toList();
    }

    private Optional<Member> member(Spot spot) {
        return file(spot.branchNumber(), spot.file())
                .filter(Types::isRead)
                .map(file -> manner(file).member(file, spot.declared()));
    }

    List<Spot> spots(String name) {
        return byName.computeIfAbsent(name, spots::of);
    }

    private Optional<Modules> modules(CodeFile file) {
        return modules.computeIfAbsent(file.language().name(), _ -> Modules.of(file.language(), this));
    }

    View view() {
        return view;
    }

    private boolean isOwn(CodeFile file, Spot spot) {
        return isOf(file.language(), spot)
                && modules(file).filter(all -> all.isOwn(file, spot)).isPresent();
    }

    private static boolean isOf(Language language, Spot spot) {
        return spot.segment().language(spot.blob()).equals(Optional.of(language));
    }

    /** What stands in nothing and has a name, in files of a language. */
    List<Spot> outermost(Language language, String name) {
        return spots(name).stream()
                .filter(spot -> isOutermost(spot.declared()) && isOf(language, spot))
                .toList();
    }

    static boolean isOutermost(Declared declared) {
        return declared.parent() < 0
                && declared.qualifierEnd() == declared.qualifierStart()
                && declared.kind() != Kind.NAMESPACE
                && !declared.kind().isUse();
    }

    /** What stands in no type and has a name in a file without an import; no types. */
    List<Found> outermost(CodeFile file, String name) {
        return modules(file).map(all -> found(all.own(file, name))).orElse(List.of());
    }

    /** What a module has under a name; no types. */
    List<Found> imported(CodeFile file, Import module, String name) {
        return modules(file)
                .map(all -> found(all.in(file, module.from(), name)))
                .orElse(List.of());
    }

    /** A type that a module has under a name. */
    Optional<Type.Known> type(CodeFile file, Import module, String name) {
        return modules(file).flatMap(all -> type(types(all.in(file, module.from(), name))));
    }

    private static List<Spot> types(List<Spot> spots) {
        return spots.stream().filter(spot -> spot.declared().kind().isType()).toList();
    }

    private List<Found> found(List<Spot> spots) {
        return spots.stream()
                .filter(spot -> !spot.declared().kind().isType())
                .flatMap(spot -> member(spot).stream())
                .map(member -> new Found(member, Optional.empty(), true))
                .toList();
    }

    /** Of spots those of the branch that all is seen from, if there are any. */
    List<Spot> ofOwnBranch(List<Spot> spots) {
        List<Spot> own = spots.stream()
                .filter(spot -> spot.branchNumber() == branchNumber)
                .toList();
        return own.isEmpty() ? spots : own;
    }

    private Optional<Type.Known> type(List<Spot> spots) {
        return spots.isEmpty()
                ? Optional.empty()
                : Optional.of(new Type.Known(declaration(spots.getFirst()), List.of(), spots.size() == 1));
    }

    /** The type of a name that is written in a file. */
    Type named(CodeFile file, TypeName name, Optional<Declared> around, Map<String, Type> bindings) {
        return named(file, name, around, bindings, 0);
    }

    private Type named(CodeFile file, TypeName name, Optional<Declared> around, Map<String, Type> bindings, int depth) {
        if (depth > DEEPEST) {
            return Type.Guess.NOTHING;
        }
        Type base = withoutDimensions(file, name, around, bindings, depth);
        for (int i = 0; i < name.dimensions(); i++) {
            base = new Type.ArrayOf(base);
        }
        return base;
    }

    private Type withoutDimensions(
            CodeFile file, TypeName name, Optional<Declared> around, Map<String, Type> bindings, int depth) {
        if (name.parts().equals(TypeName.ONE_OF)) {
            List<Type> all = name.arguments().stream()
                    .map(one -> named(file, one, around, bindings, depth + 1))
                    .toList();
            return all.size() == 1 ? all.getFirst() : Type.Guess.among(all);
        }
        if (name.parts().equals(TypeName.SELF)) {
            return self(file, around);
        }
        if (name.parts().size() == 1) {
            Optional<TypeVariable> variable = variable(file, name.last(), around);
            if (variable.isPresent()) {
                Type bound = bindings.get(name.last());
                return bound != null && !bound.isUnknown()
                        ? bound
                        : variable.get()
                                .bound()
                                .map(one -> named(file, one, around, Map.of(), depth + 1))
                                .orElse(Type.Guess.NOTHING);
            }
        }
        List<Type> arguments = name.arguments().stream()
                .map(argument -> named(file, argument, around, bindings, depth + 1))
                .toList();
        return declared(file, name.parts(), around, depth)
                .map(found -> original(new Type.Known(found.declaration(), arguments, found.isOnly()), depth))
                .orElseGet(() -> new Type.Foreign(String.join(".", name.parts()), arguments));
    }

    /** A type, or the one that it is another name of. */
    private Type original(Type.Known type, int depth) {
        boolean isAlias =
                type.declaration().underlying().isPresent() && is(type.declaration(), Manner.Trait.TYPES_ARE_ALIASES);
        return isAlias ? underlying(type, depth + 1).orElse(type) : type;
    }

    /** The type around a declaration. */
    private Type self(CodeFile file, Optional<Declared> around) {
        Optional<Declared> at = around;
        while (at.isPresent() && !at.get().kind().isType()) {
            at = file.parent(at.get());
        }
        return at.<Type>map(type -> new Type.Known(declaration(file.spot(type)), List.of(), true))
                .orElse(Type.Guess.NOTHING);
    }

    private static Optional<TypeVariable> variable(CodeFile file, String name, Optional<Declared> around) {
        Manner manner = manner(file);
        for (Optional<Declared> at = around; at.isPresent(); at = file.parent(at.get())) {
            if (at.get().kind().isType() || at.get().kind().isCallable()) {
                for (TypeVariable variable : manner.variables(file, at.get())) {
                    if (variable.name().equals(name)) {
                        return Optional.of(variable);
                    }
                }
            }
        }
        return Optional.empty();
    }

    /** The type that a file calls so. */
    Optional<Type.Known> declared(CodeFile file, List<String> parts, Optional<Declared> around) {
        return declared(file, parts, around, 0);
    }

    private Optional<Type.Known> declared(CodeFile file, List<String> parts, Optional<Declared> around, int depth) {
        Optional<Import> module = parts.size() > 1 ? module(file, parts.getFirst()) : Optional.empty();
        if (module.isPresent()) {
            return type(file, module.get(), parts.get(1))
                    .flatMap(found -> nested(found, parts.subList(2, parts.size()), depth));
        }
        Optional<Type.Known> first = simple(file, parts.getFirst(), around, depth);
        if (first.isPresent()) {
            return nested(first.get(), parts.subList(1, parts.size()), depth);
        }
        for (int i = 1; i < parts.size(); i++) {
            Optional<Type.Known> found = contained(parts.get(i), String.join(".", parts.subList(0, i)));
            if (found.isPresent()) {
                return nested(found.get(), parts.subList(i + 1, parts.size()), depth);
            }
        }
        return Optional.empty();
    }

    /** The module that a file imports by a name. */
    Optional<Import> module(CodeFile file, String name) {
        for (Import one : file.imports(manner(file))) {
            if (one.alias().equals(name)) {
                Optional<Import> given = one.isModule()
                        ? Optional.of(one)
                        : modules(file)
                                .flatMap(all -> all.module(file, one.from(), one.name()))
                                .map(from -> new Import(from, "", name, false));
                if (given.isPresent()) {
                    return given;
                }
            }
        }
        return Optional.empty();
    }

    /** The module that another has under a name. */
    Optional<Import> module(CodeFile file, Import outer, String name) {
        return modules(file)
                .flatMap(all -> all.module(file, outer.from(), name))
                .map(from -> new Import(from, "", name, false));
    }

    private Optional<Type.Known> nested(Type.Known outer, List<String> parts, int depth) {
        Optional<Type.Known> at = Optional.of(outer);
        for (String part : parts) {
            at = at.flatMap(type -> inherited(type, part, depth));
        }
        return at;
    }

    /** A type that is declared in another, or in what that extends. */
    Optional<Type.Known> inherited(Type.Known type, String name, int depth) {
        Set<TypeDeclaration> seen = new HashSet<>();
        return inherited(type, name, depth, seen);
    }

    private Optional<Type.Known> inherited(Type.Known type, String name, int depth, Set<TypeDeclaration> seen) {
        if (depth > DEEPEST || seen.size() > MOST_SUPERTYPES || !seen.add(type.declaration())) {
            return Optional.empty();
        }
        Spot own = type.declaration().nested().get(name);
        if (own != null) {
            return Optional.of(new Type.Known(declaration(own), List.of(), type.isOnly()));
        }
        for (Type.Known above : supertypes(type, depth + 1)) {
            Optional<Type.Known> found = inherited(above, name, depth + 1, seen);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private Optional<Type.Known> simple(CodeFile file, String name, Optional<Declared> around, int depth) {
        for (Optional<Declared> at = around; at.isPresent(); at = file.parent(at.get())) {
            Declared one = at.get();
            if (one.kind().isType()) {
                if (file.name(one).equals(name)) {
                    return Optional.of(new Type.Known(declaration(file.spot(one)), List.of(), true));
                }
                Optional<Type.Known> found =
                        inherited(new Type.Known(declaration(file.spot(one)), List.of(), true), name, depth + 1);
                if (found.isPresent()) {
                    return found;
                }
            } else if (one.kind().isCallable()) {
                Optional<Type.Known> local = inFile(file, name, one.number());
                if (local.isPresent()) {
                    return local;
                }
            }
        }
        Manner manner = manner(file);
        boolean hasModules = modules(file).isPresent();
        for (Import one : file.imports(manner)) {
            if (!one.name().isEmpty() && one.alias().equals(name)) {
                Optional<Type.Known> found =
                        hasModules ? type(file, one, one.name()) : contained(one.name(), one.from());
                if (found.isPresent() || !one.isMember()) {
                    return found;
                }
            }
        }
        Optional<Type.Known> here = inFile(file, name, -1);
        if (here.isEmpty()) {
            here = hasModules
                    ? modules(file).flatMap(all -> type(types(all.own(file, name))))
                    : contained(name, file.namespace());
        }
        for (Import one : file.imports(manner)) {
            if (here.isEmpty() && one.isOfAll()) {
                here = hasModules ? type(file, one, name) : contained(name, one.from());
            }
        }
        return here.isEmpty() && !manner.known().isEmpty() ? contained(name, manner.known()) : here;
    }

    /** A type that stands in a declaration of the file; -1 for what stands in none, or in its package. */
    private Optional<Type.Known> inFile(CodeFile file, String name, int parent) {
        for (Declared one : file.typesIn(parent)) {
            if (file.name(one).equals(name)) {
                return Optional.of(new Type.Known(declaration(file.spot(one)), List.of(), true));
            }
        }
        return Optional.empty();
    }

    /** The type of a name that is declared in a package or another type: on the same branch, else elsewhere. */
    Optional<Type.Known> contained(String name, String container) {
        List<Contained> all = contained.computeIfAbsent(
                name,
                _ -> spots(name).stream()
                        .filter(spot -> spot.declared().kind().isType())
                        .map(spot -> new Contained(spot, spot.container()))
                        .toList());
        List<Spot> fitting = all.stream()
                .filter(one -> one.container.equals(container))
                .map(Contained::spot)
                .toList();
        return type(ofOwnBranch(fitting));
    }

    /** What a type extends and is declared in the index. */
    List<Type.Known> supertypes(Type.Known type) {
        return supertypes(type, 0);
    }

    private List<Type.Known> supertypes(Type.Known type, int depth) {
        return above(type, depth).known;
    }

    /** Whether a type extends one that is declared nowhere in the index. */
    boolean hasForeignSupertype(Type.Known type) {
        return above(type, 0).isMore;
    }

    /** @param isMore whether there are others, which are declared nowhere in the index */
    private record Above(List<Type.Known> known, boolean isMore) {
        private static final Above NOTHING = new Above(List.of(), false);
        private static final Above UNREAD = new Above(List.of(), true);
    }

    private Above above(Type.Known type, int depth) {
        if (type.declaration().supertypes().isEmpty() || depth > DEEPEST) {
            return Above.NOTHING;
        }
        Above found = above.get(type);
        if (found == null) {
            found = read(type, depth);
            above.put(type, found);
        }
        return found;
    }

    private Above read(Type.Known type, int depth) {
        TypeDeclaration declaration = type.declaration();
        Spot spot = declaration.spot();
        Optional<CodeFile> file = file(spot.branchNumber(), spot.file()).filter(Types::isRead);
        if (file.isEmpty()) {
            return Above.UNREAD;
        }
        Map<String, Type> bindings = bindings(type);
        // names in the head of a type are looked up around it, but for its own parameters
        Optional<Declared> outside = file.get().parent(spot.declared());
        List<Type.Known> known = new ArrayList<>();
        boolean isMore = false;
        for (TypeName above : declaration.supertypes()) {
            Optional<Type.Known> found = declared(file.get(), above.parts(), outside, depth + 1);
            if (found.isEmpty()) {
                isMore = true;
                continue;
            }
            List<Type> arguments = above.arguments().stream()
                    .map(argument -> named(file.get(), argument, Optional.of(spot.declared()), bindings, depth + 1))
                    .toList();
            known.add(new Type.Known(
                    found.get().declaration(), arguments, found.get().isOnly() && type.isOnly()));
        }
        return new Above(known, isMore);
    }

    /**
     * The class without a name that a member stands in.
     *
     * @param extended what it extends
     */
    TypeDeclaration anonymous(CodeFile file, Declared member, TypeName extended, long start, long end) {
        return declarations.computeIfAbsent(file.spot(member), spot -> {
            Manner manner = manner(file);
            Map<String, List<Member>> members = new HashMap<>();
            Map<String, Spot> nested = new HashMap<>();
            for (Declared one : file.declarations()) {
                boolean isInside = one.parent() == member.parent() && one.nameStart() >= start && one.nameStart() < end;
                if (isInside && one.kind().isType()) {
                    nested.putIfAbsent(file.name(one), file.spot(one));
                } else if (isInside && !one.kind().isUse()) {
                    members.computeIfAbsent(file.name(one), _ -> new ArrayList<>())
                            .add(manner.member(file, one));
                }
            }
            return new TypeDeclaration(spot, List.of(), List.of(extended), Optional.empty(), members, nested);
        });
    }

    /** The type that a declared one is made of, where it is not declared by its members. */
    Optional<Type> underlying(Type.Known type) {
        return underlying(type, 0);
    }

    private Optional<Type> underlying(Type.Known type, int depth) {
        Spot spot = type.declaration().spot();
        return type.declaration()
                .underlying()
                .flatMap(name -> file(spot.branchNumber(), spot.file())
                        .map(file -> named(file, name, Optional.of(spot.declared()), bindings(type), depth)));
    }

    /** What the type parameters of a type stand for. */
    private static Map<String, Type> bindings(Type.Known type) {
        return bindings(type.declaration().variables(), type.arguments());
    }

    static Map<String, Type> bindings(List<TypeVariable> variables, List<Type> arguments) {
        Map<String, Type> bindings = new HashMap<>();
        for (int i = 0; i < variables.size() && i < arguments.size(); i++) {
            bindings.put(variables.get(i).name(), arguments.get(i));
        }
        return bindings;
    }

    /** Whether a type is another or extends it. */
    boolean isWithin(Type.Known type, TypeDeclaration other) {
        return isWithin(type, other, new HashSet<>());
    }

    private boolean isWithin(Type.Known type, TypeDeclaration other, Set<TypeDeclaration> seen) {
        if (type.declaration().equals(other)) {
            return true;
        }
        return seen.add(type.declaration())
                && seen.size() < MOST_SUPERTYPES
                && supertypes(type).stream().anyMatch(above -> isWithin(above, other, seen));
    }
}
