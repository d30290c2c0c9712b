package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.snapshot.View;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * What types extend and what extends them, and which methods override which, in languages whose types are read. What was
 * read is kept. For one thread.
 */
public final class Relatives {
    private static final int MOST_TYPES = 500;
    private static final int MOST_METHODS = 200;

    private final View view;
    private final int branchNumber;
    private final Map<Integer, Types> seen = new HashMap<>();
    private final Map<TypeDeclaration, List<TypeDeclaration>> below = new HashMap<>();

    /** @param branchNumber of the branch that all is seen from */
    public Relatives(View view, int branchNumber) {
        this.view = view;
        this.branchNumber = branchNumber;
    }

    /** Whether relatives of a declaration can be told by what is written. */
    public static boolean tells(Spot spot) {
        return spot.segment().language(spot.blob()).filter(UseJudge::readsTypes).isPresent();
    }

    /** What names mean in a file is seen from its own branch. */
    private Types types(Spot spot) {
        return seen.computeIfAbsent(spot.branchNumber(), number -> new Types(view, number));
    }

    private List<TypeDeclaration> extended(TypeDeclaration type) {
        return types(type.spot()).supertypes(new Type.Known(type, List.of(), true)).stream()
                .map(Type.Known::declaration)
                .toList();
    }

    private List<TypeDeclaration> extending(TypeDeclaration type) {
        return below.computeIfAbsent(
                type,
                _ -> new Spots(view, branchNumber)
                        .subtypesOf(type.spot().name()).stream()
                                .filter(Relatives::tells)
                                .map(spot -> types(spot).declaration(spot))
                                .filter(one -> extended(one).contains(type))
                                .toList());
    }

    /** The types that a type extends or implements right away. */
    public List<Spot> above(Spot type) {
        return spots(extended(types(type).declaration(type)));
    }

    /** The types that extend or implement a type right away. */
    public List<Spot> below(Spot type) {
        return spots(extending(types(type).declaration(type)));
    }

    private static List<Spot> spots(List<TypeDeclaration> types) {
        return types.stream().map(TypeDeclaration::spot).distinct().toList();
    }

    /** The methods that a method overrides or implements, the nearest first. */
    public List<Spot> overridden(Spot method) {
        return owner(method)
                .map(owner -> {
                    Set<TypeDeclaration> types = all(List.of(owner), this::extended);
                    types.remove(owner);
                    return related(method, owner, types);
                })
                .orElse(List.of());
    }

    /** The methods that are bound to a method by overriding, in whatever direction; most of them, if there are very many. */
    public List<Spot> family(Spot method) {
        List<Spot> found = new ArrayList<>(List.of(method));
        for (int i = 0; i < found.size() && found.size() < MOST_METHODS; i++) {
            Spot one = found.get(i);
            Stream.concat(overridden(one).stream(), overriding(one).stream())
                    .filter(other -> found.stream().noneMatch(other::isSameAs))
                    .forEach(found::add);
        }
        return found.subList(1, found.size());
    }

    private List<Spot> overriding(Spot method) {
        return owner(method)
                .map(owner -> {
                    Set<TypeDeclaration> types = all(List.of(owner), this::extending);
                    types.remove(owner);
                    return related(method, owner, types);
                })
                .orElse(List.of());
    }

    /** Some types, and what is reached from them. */
    private static Set<TypeDeclaration> all(
            List<TypeDeclaration> from, Function<TypeDeclaration, List<TypeDeclaration>> next) {
        Set<TypeDeclaration> found = new LinkedHashSet<>(from);
        List<TypeDeclaration> open = new ArrayList<>(from);
        for (int i = 0; i < open.size() && found.size() < MOST_TYPES; i++) {
            for (TypeDeclaration one : next.apply(open.get(i))) {
                if (found.add(one)) {
                    open.add(one);
                }
            }
        }
        return found;
    }

    /** The type that a method stands in. */
    private Optional<TypeDeclaration> owner(Spot method) {
        Declared declared = method.declared();
        if (!declared.kind().isCallable() || declared.parent() < 0) {
            return Optional.empty();
        }
        Declared parent = method.segment().declaration(method.blob(), declared.parent());
        Spot spot = new Spot(method.segment(), method.blob(), parent, method.branchNumber(), method.file());
        return parent.kind().isType() ? Optional.of(types(method).declaration(spot)) : Optional.empty();
    }

    /** Of some types the methods that have the name of a method and may take what it takes. */
    private List<Spot> related(Spot method, TypeDeclaration owner, Set<TypeDeclaration> of) {
        Optional<Member> mine = owner.members().getOrDefault(method.name(), List.of()).stream()
                .filter(member -> member.spot().isSameAs(method))
                .findFirst();
        if (mine.isEmpty() || !mayOverride(mine.get(), owner)) {
            return List.of();
        }
        List<Spot> found = new ArrayList<>();
        for (TypeDeclaration type : of) {
            List<Spot> best = new ArrayList<>();
            int most = 1;
            for (Member other : type.members().getOrDefault(method.name(), List.of())) {
                int fit = other.declared().kind().isCallable() && mayOverride(other, type)
                        ? types(method).isOneSpace(owner) ? 1 : fit(mine.get(), owner, other, type)
                        : 0;
                if (fit > most) {
                    best.clear();
                    most = fit;
                }
                if (fit == most) {
                    best.add(other.spot());
                }
            }
            found.addAll(best);
        }
        return found;
    }

    /** Whether a method is one that can be overridden: of the type itself, and not of a class without a name in it; neither private nor static. */
    private boolean mayOverride(Member member, TypeDeclaration type) {
        Spot spot = member.spot();
        Optional<CodeFile> file = types(spot).file(spot.branchNumber(), spot.file());
        if (file.isEmpty()) {
            return false;
        }
        Code code = file.get().code();
        int name = file.get().nameToken(spot.declared());
        for (int at = file.get().token(spot.declared().start()); at < name; at++) {
            if (code.is(at, "private") || code.is(at, "static")) {
                return false;
            }
        }
        return code.blockAround(code.blockAround(name))
                < file.get().nameToken(type.spot().declared());
    }

    /**
     * Whether two methods take arguments of the same types, as far as these are written: 2 if they are written the same,
     * 1 if a type parameter may stand for one, 0 if not.
     */
    private static int fit(Member one, TypeDeclaration owner, Member other, TypeDeclaration otherOwner) {
        if (one.parameters().size() != other.parameters().size() || one.takesMore() != other.takesMore()) {
            return 0;
        }
        int fit = 2;
        for (int i = 0; i < one.parameters().size(); i++) {
            TypeName mine = one.parameters().get(i);
            TypeName others = other.parameters().get(i);
            if (mine.dimensions() != others.dimensions()) {
                return 0;
            }
            if (!isSame(mine.parts(), others.parts())) {
                if (!isVariable(mine, one, owner) && !isVariable(others, other, otherOwner)) {
                    return 0;
                }
                fit = 1;
            }
        }
        return fit;
    }

    /** Whether qualified names agree as far as both are written. */
    private static boolean isSame(List<String> one, List<String> other) {
        int both = Math.min(one.size(), other.size());
        return one.subList(one.size() - both, one.size()).equals(other.subList(other.size() - both, other.size()));
    }

    private static boolean isVariable(TypeName type, Member member, TypeDeclaration owner) {
        boolean isKnown = Stream.concat(member.variables().stream(), owner.variables().stream())
                .anyMatch(variable -> variable.name().equals(type.last()));
        // one of a type further out: a class within a generic one
        boolean looksSo =
                type.last().length() <= 2 && type.last().equals(type.last().toUpperCase(Locale.ROOT));
        return type.parts().size() == 1 && (isKnown || looksSo);
    }
}
