package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import java.util.Optional;

/** How a language writes types, parameters, variables and imports. Has no state. */
interface Manner {
    /**
     * A variable of a function, or a parameter.
     *
     * @param type as it is written; empty if it is not
     * @param value the first token of what it is given; 0 if it is given nothing
     * @param end the token behind that
     * @param isElement whether it is given the elements of the value, one after the other
     * @param lambda the first token of the function without a name that it is a parameter of; 0 if it is none
     */
    record Local(Optional<TypeName> type, int value, int end, boolean isElement, int lambda) {
        static Local typed(TypeName type) {
            return new Local(Optional.of(type), 0, 0, false, 0);
        }
    }

    List<Import> imports(CodeFile file);

    /** The type that is written at a token, if one is. */
    Optional<TypeName> type(Code code, int token);

    /** A member that a file declares. */
    Member member(CodeFile file, Declared declared);

    /** The type parameters of a declaration. */
    List<TypeVariable> variables(CodeFile file, Declared declared);

    /** What a name means at a token, if it is a variable or a parameter of a function around it. */
    Optional<Local> local(CodeFile file, String name, int token);

    /** Whether a variable or a parameter of a function is declared by the name at a token. */
    boolean declaresLocal(CodeFile file, int token);

    /** The package that needs no import; empty if there is none. */
    String known();

    /** Of languages whose types we read. */
    static Optional<Manner> of(Language language) {
        return switch (language.name()) {
            case "java" -> Optional.of(new JavaManner());
            default -> Optional.empty();
        };
    }
}
