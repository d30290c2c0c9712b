package dev.oddbeacon.core.source;

import dev.oddbeacon.core.text.Coded;
import java.util.Locale;
import java.util.Optional;

/** The kind of a declaration. */
public enum Kind implements Coded {
    /** The position after {@code extends} and the like: a use, not a declaration. */
    SUPERTYPE(0),
    /** A name of a type to which members are added from outside: a use, not a declaration. */
    EXTENSION(1),
    NAMESPACE(2),
    CLASS(3),
    INTERFACE(4),
    TRAIT(5),
    STRUCT(6),
    UNION(7),
    ENUM(8),
    RECORD(9),
    OBJECT(10),
    TYPE(11),
    FUNCTION(12),
    METHOD(13),
    CONSTRUCTOR(14),
    PROTOTYPE(15),
    FIELD(16),
    CONSTANT(17),
    VARIABLE(18),
    MACRO(19),
    KEY(20),
    HEADING(21),
    TABLE(22),
    VIEW(23),
    INDEX(24),
    TARGET(25),
    SELECTOR(26),
    ID(27),
    STAGE(28);

    private static final Kind[] ALL = values();
    private static final Kind[] BY_CODE = Coded.byCode(ALL);

    private final int code;

    Kind(int code) {
        this.code = code;
    }

    @Override
    public int code() {
        return code;
    }

    /** Whether a use, of which only the position is special. */
    public boolean isUse() {
        return this == SUPERTYPE || this == EXTENSION;
    }

    /** Whether types are declared so: what may extend and be extended. */
    public boolean isType() {
        return switch (this) {
            case CLASS, INTERFACE, TRAIT, STRUCT, UNION, ENUM, RECORD, OBJECT, TYPE -> true;
            default -> false;
        };
    }

    /** Whether it can be called. */
    public boolean isCallable() {
        return switch (this) {
            case FUNCTION, METHOD, CONSTRUCTOR, PROTOTYPE -> true;
            default -> false;
        };
    }

    public String label() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @param code as it is stored */
    public static Kind of(int code) {
        return BY_CODE[code];
    }

    /** The kind of a label, in any case. */
    public static Optional<Kind> of(String label) {
        for (Kind kind : ALL) {
            if (!kind.isUse() && kind.label().equalsIgnoreCase(label)) {
                return Optional.of(kind);
            }
        }
        return Optional.empty();
    }
}
