package dev.oddbeacon.core.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Tells methods of one name apart by the arguments that are given, as far as the types of these are known. */
final class Overloads {
    private final Types types;
    private final Members members;

    Overloads(Types types, Members members) {
        this.types = types;
        this.members = members;
    }

    /**
     * Those that take arguments of such types, and of these the ones that fit best; all of them if none does.
     *
     * @param given the types of the arguments; null for the null reference
     */
    List<Found> best(List<Found> found, List<Type> given) {
        boolean isAllKnown = given.stream().noneMatch(type -> type instanceof Type.Guess);
        List<Found> best = new ArrayList<>();
        int most = -1;
        for (Found one : found) {
            int points = points(one, given);
            if (isAllKnown && points > most) {
                best.clear();
                most = points;
            }
            if (points >= 0 && (points == most || !isAllKnown)) {
                best.add(one);
            }
        }
        return best.isEmpty() ? found : best;
    }

    /** How well arguments fit: negative if one cannot. */
    private int points(Found one, List<Type> given) {
        int points = 0;
        for (int i = 0; i < given.size(); i++) {
            List<TypeName> parameters = one.member().parameters();
            if (parameters.isEmpty()) {
                return -1;
            }
            TypeName written = parameters.get(Math.min(i, parameters.size() - 1));
            boolean isRest = one.member().takesMore() && i >= parameters.size() - 1;
            int fit = Math.max(fit(one, written, given.get(i)), isRest ? fit(one, element(written), given.get(i)) : -1);
            if (fit < 0) {
                return -1;
            }
            points += isRest ? 0 : fit;
        }
        return points * 2 + (one.member().takesMore() ? 0 : 1);
    }

    private static TypeName element(TypeName array) {
        return new TypeName(
                array.parts(), array.arguments(), Math.max(0, array.dimensions() - 1), array.token(), array.end());
    }

    /** 2 if a parameter is of just that type, 1 if it may be given it, negative if it cannot. */
    private int fit(Found one, TypeName parameter, Type given) {
        boolean isPrimitive =
                parameter.dimensions() == 0 && parameter.parts().size() == 1 && isPrimitive(parameter.last());
        if (given == null) {
            return isPrimitive ? -1 : 1;
        }
        if (given.isUnknown()) {
            return 1;
        }
        Spot spot = one.spot();
        Optional<CodeFile> declaring = types.file(spot.branchNumber(), spot.file());
        if (declaring.isEmpty()) {
            return 1;
        }
        Type wanted = types.named(declaring.get(), parameter, Optional.of(spot.declared()), one.bindings());
        return switch (given) {
            case Type.Foreign foreign
            when isPrimitive(foreign.name()) ->
                isPrimitive
                        ? foreign.name().equals(parameter.last())
                                ? 2
                                : widens(foreign.name(), parameter.last()) ? 1 : -1
                        : wanted instanceof Type.ArrayOf ? -1 : boxes(wanted, foreign.name());
            case Type.Foreign foreign ->
                isPrimitive || wanted instanceof Type.ArrayOf
                        ? -1
                        : wanted instanceof Type.Foreign other && other.name().equals(foreign.name()) ? 2 : 1;
            case Type.ArrayOf array ->
                wanted instanceof Type.ArrayOf other
                        ? array.element().equals(other.element()) ? 2 : sameDepth(array, other) ? 1 : -1
                        : isPrimitive ? -1 : isTop(wanted) ? 0 : wanted instanceof Type.Known ? -1 : 1;
            case Type.Known known ->
                isPrimitive
                        ? unboxes(known, parameter.last())
                        : switch (wanted) {
                            case Type.Known other ->
                                other.declaration().equals(known.declaration())
                                        ? 2
                                        : isTop(other)
                                                ? 0
                                                : types.isWithin(known, other.declaration())
                                                        ? 1
                                                        : members.hasUnknownAbove(known) ? 0 : -1;
                            case Type.ArrayOf _ -> -1;
                            case Type.Foreign _ -> members.hasUnknownAbove(known) ? 1 : 0;
                            case Type.Guess _, Type.Module _ -> 1;
                        };
            case Type.Guess _, Type.Module _ -> 1;
        };
    }

    private static boolean sameDepth(Type.ArrayOf one, Type.ArrayOf other) {
        boolean onePrimitive = one.element() instanceof Type.Foreign a && isPrimitive(a.name());
        boolean otherPrimitive = other.element() instanceof Type.Foreign b && isPrimitive(b.name());
        return !onePrimitive && !otherPrimitive;
    }

    private static boolean isTop(Type type) {
        return type instanceof Type.Known known
                ? known.declaration().spot().name().equals("Object")
                : type instanceof Type.Foreign foreign && foreign.name().equals("Object");
    }

    private static boolean isPrimitive(String name) {
        return switch (name) {
            case "boolean", "byte", "char", "double", "float", "int", "long", "short" -> true;
            default -> false;
        };
    }

    private static int boxes(Type wanted, String primitive) {
        if (isTop(wanted) || wanted instanceof Type.Guess) {
            return 0;
        }
        String name = wanted instanceof Type.Known known
                ? known.declaration().spot().name()
                : wanted instanceof Type.Foreign foreign ? foreign.name() : "";
        return switch (name) {
            case "Number", "Comparable", "Serializable" -> 0;
            case "Integer", "Long", "Short", "Byte", "Character", "Boolean", "Float", "Double" ->
                name.toLowerCase(Locale.ROOT).startsWith(primitive) ? 0 : -1;
            default -> -1;
        };
    }

    private static int unboxes(Type.Known known, String primitive) {
        return switch (known.declaration().spot().name()) {
            case "Integer", "Long", "Short", "Byte", "Character", "Boolean", "Float", "Double" -> 0;
            default -> known.declaration().spot().name().equals(primitive) ? 0 : -1;
        };
    }

    private static boolean widens(String from, String to) {
        String order = "byte short int long float double";
        return order.contains(to)
                && (order.contains(from)
                        ? order.indexOf(from) < order.indexOf(to)
                        : from.equals("char") && order.indexOf(to) >= order.indexOf("int"));
    }
}
