package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** How a language writes types, parameters, variables and imports. Has no state. */
interface Manner {
    /** In what languages differ as to the reach of names. */
    enum Trait {
        /** A name without a receiver may be a member of a type around. */
        SEES_MEMBERS,
        /** A name stands for one thing only at a place, whether it is called or not. */
        ONE_SPACE,
        /** Methods of a type are declared outside of it. */
        METHODS_OUTSIDE,
        /** What a type is made of is a field of it, called as its type. */
        EMBEDS,
        /** A type in brackets before a value casts it; in others a call may follow brackets. */
        CASTS_IN_FRONT
    }

    /**
     * A variable of a function, or a parameter.
     *
     * @param type as it is written; empty if it is not
     * @param given what it is given, if it is given something there
     * @param lambda the first token of the function without a name that it is a parameter of; 0 if it is none
     */
    record Local(Optional<TypeName> type, Optional<Given> given, int lambda) {
        static final Local UNTYPED = new Local(Optional.empty(), Optional.empty(), 0);

        static Local typed(TypeName type) {
            return new Local(Optional.of(type), Optional.empty(), 0);
        }

        static Local given(Given given) {
            return new Local(Optional.empty(), Optional.of(given), 0);
        }

        static Local ofLambda(int lambda) {
            return new Local(Optional.empty(), Optional.empty(), lambda);
        }
    }

    /**
     * What a variable is given.
     *
     * @param from the first token of the value
     * @param end the token behind it
     * @param isElement whether it is given the elements of the value, one after the other
     * @param position which of several results, from 0; of an element 0 is its key or number, 1 itself
     */
    record Given(int from, int end, boolean isElement, int position) {
        static Given value(int from, int end) {
            return new Given(from, end, false, 0);
        }

        static Given element(int from, int end) {
            return new Given(from, end, true, 1);
        }
    }

    /**
     * A value whose type is written with it.
     *
     * @param end the token behind it
     */
    record Created(TypeName type, int end) {}

    Set<Trait> traits();

    List<Import> imports(CodeFile file);

    /** The type that is written at a token, if one is. */
    Optional<TypeName> type(Code code, int token);

    /** A member that a file declares. */
    Member member(CodeFile file, Declared declared);

    /** The type parameters of a declaration. */
    List<TypeVariable> variables(CodeFile file, Declared declared);

    /** The type that a declaration gives another name, or is made of. */
    default Optional<TypeName> underlying(CodeFile file, Declared declared) {
        return Optional.empty();
    }

    /** What a name means at a token, if it is a variable or a parameter of a function around it. */
    Optional<Local> local(CodeFile file, String name, int token);

    /** Whether a variable or a parameter of a function is declared by the name at a token. */
    boolean declaresLocal(CodeFile file, int token);

    /** What is created at a token, or written as of a type. */
    Optional<Created> created(Code code, int token);

    /** The type that a value is said to be of by what follows it at a token. */
    default Optional<Created> asserted(Code code, int token) {
        return Optional.empty();
    }

    /** The type of the value in whose brackets a token stands as the name of a field that is given something. */
    default Optional<TypeName> filled(Code code, int token) {
        return Optional.empty();
    }

    /** Whether a sign stands before a value that leaves its type as it is, or takes an element of it. */
    default boolean isPrefix(Code code, int token) {
        return false;
    }

    /** The package that needs no import; empty if there is none. */
    default String known() {
        return "";
    }

    /** Of languages whose types we read. */
    static Optional<Manner> of(Language language) {
        return switch (language.name()) {
            case "java" -> Optional.of(new JavaManner());
            case "go" -> Optional.of(new GoManner());
            default -> Optional.empty();
        };
    }

    default boolean is(Trait trait) {
        return traits().contains(trait);
    }
}
