package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;

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
        /** Functions with names stand in others. */
        FUNCTIONS_WITHIN,
        /** What is declared as a type is another name of one. */
        TYPES_ARE_ALIASES,
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
     * @param position which parameter of that it is, from 0
     */
    record Local(Optional<TypeName> type, Optional<Given> given, int lambda, int position) {
        static final Local UNTYPED = new Local(Optional.empty(), Optional.empty(), 0, 0);

        static Local typed(TypeName type) {
            return new Local(Optional.of(type), Optional.empty(), 0, 0);
        }

        static Local given(Given given) {
            return new Local(Optional.empty(), Optional.of(given), 0, 0);
        }

        static Local ofLambda(int lambda, int position) {
            return new Local(Optional.empty(), Optional.empty(), lambda, position);
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
     * What stands before a value.
     *
     * @param end the token behind it
     */
    record Prefix(Effect effect, int end) {
        enum Effect {
            /** The type of the value stays. */
            SAME,
            /** An element of the value is taken. */
            ELEMENT,
            /** What the value promises is taken. */
            PROMISED
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

    /**
     * Of the variables and parameters that a name declares before a token, the last that holds there; those that the index
     * declares are none.
     *
     * @param first the token from which they may be declared
     * @param declaredAt the one that is declared at a token, if it holds
     */
    default Optional<Local> nearest(
            CodeFile file, String name, int first, int token, IntFunction<Optional<Local>> declaredAt) {
        int[] declaring = file.declaring(name, this);
        for (int i = declaring.length - 1; i >= 0 && declaring[i] >= first; i--) {
            int at = declaring[i];
            Optional<Local> found = at > token || file.isDeclared(at) ? Optional.empty() : declaredAt.apply(at);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

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

    /** What stands before a value at a token, if something does. */
    default Optional<Prefix> prefix(Code code, int token) {
        return Optional.empty();
    }

    /** The token behind a sign that says no more than that a value is there, or that its member follows. */
    default int behindSign(Code code, int token) {
        return token;
    }

    /** The last token of what a dot follows. */
    default int lastOfReceiver(Code code, int dot) {
        return dot - 1;
    }

    /** Whether a name is that of something in a value without a declared type, or a label. */
    default boolean isKey(Code code, int token) {
        return false;
    }

    /** What is imported by the name at a token in an import. */
    default Optional<Import> importedAt(CodeFile file, int token) {
        return Optional.empty();
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
            case "typescript" -> Optional.of(new TypeScriptManner());
            default -> Optional.empty();
        };
    }

    default boolean is(Trait trait) {
        return traits().contains(trait);
    }
}
