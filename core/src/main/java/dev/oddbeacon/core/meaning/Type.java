package dev.oddbeacon.core.meaning;

import java.util.ArrayList;
import java.util.List;

/** The type of a value, as far as it is known. */
sealed interface Type {
    /** The name of the type of functions: its arguments are what they return, and their parameters. */
    String FUNCTION = "func";
    /** The name of the type of what holds values by keys: its arguments are those of both. */
    String MAP = "map";
    /** The name of the type of what values of its argument are sent through. */
    String CHANNEL = "chan";
    /** The name of the type of what gives its argument later. */
    String PROMISE = "Promise";
    /** The name of the type of several results at once, which are its arguments. */
    String SEVERAL = "()";

    /**
     * One that is declared in the index.
     *
     * @param isOnly whether no other declaration can be meant
     */
    record Known(TypeDeclaration declaration, List<Type> arguments, boolean isOnly) implements Type {}

    /** One that is declared nowhere in the index. */
    record Foreign(String name, List<Type> arguments) implements Type {}

    record ArrayOf(Type element) implements Type {}

    /** No type, but a module that stands before the name of what is in it. */
    record Module(Import of) implements Type {}

    /** It may be one of these, or another; empty if nothing is known. */
    record Guess(List<Known> options) implements Type {
        /** Nothing is known of it. */
        static final Guess NOTHING = new Guess(List.of());

        /** One of some types, if they are known; those that these are made of otherwise. */
        static Guess among(List<Type> among) {
            List<Known> options = new ArrayList<>();
            for (Type one : among) {
                switch (one) {
                    case Known known -> options.add(known);
                    case Foreign foreign ->
                        options.addAll(among(foreign.arguments()).options());
                    case ArrayOf array ->
                        options.addAll(among(List.of(array.element())).options());
                    case Guess guess -> options.addAll(guess.options());
                    case Module _ -> {}
                }
            }
            return options.isEmpty() ? NOTHING : new Guess(options);
        }
    }

    default boolean isUnknown() {
        return this instanceof Guess guess && guess.options.isEmpty();
    }
}
