package dev.oddbeacon.core.source;

import dev.oddbeacon.core.text.Coded;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** A hint in a file's content about its type. A new one takes the next code. */
public enum Hint implements Coded {
    NONE(0),
    SHELL(1),
    PYTHON(2),
    PERL(3),
    RUBY(4),
    JAVASCRIPT(5),
    TYPESCRIPT(6),
    PHP(7),
    LUA(8),
    MAKE(9),
    AWK(10),
    TCL(11),
    SED(12),
    GROOVY(13),
    C(14),
    CPP(15),
    OBJECTIVEC(16),
    MATLAB(17),
    XML(18),
    HTML(19),
    SVG(20),
    JSON(21),
    YAML(22),
    TOML(23),
    INI(24),
    TROFF(25),
    JAVA(26),
    GO(27),
    RUST(28),
    KOTLIN(29),
    SCALA(30),
    SQL(31),
    CSS(32),
    MARKDOWN(33),
    RST(34),
    EMACSLISP(35),
    LISP(36),
    SCHEME(37),
    CLOJURE(38),
    HASKELL(39),
    OCAML(40),
    ERLANG(41),
    ELIXIR(42),
    R(43),
    JULIA(44),
    SWIFT(45),
    VIM(46),
    DIFF(47);

    private static final Hint[] VALUES = values();
    private static final Hint[] BY_CODE = Coded.byCode(VALUES);

    private final int code;

    Hint(int code) {
        this.code = code;
    }

    @Override
    public int code() {
        return code;
    }

    /** The type that is hinted at. */
    public Optional<String> type() {
        return this == NONE ? Optional.empty() : Optional.of(name().toLowerCase(Locale.ROOT));
    }

    static Hint of(String type) {
        return Arrays.stream(VALUES)
                .filter(hint ->
                        hint != NONE && hint.name().toLowerCase(Locale.ROOT).equals(type))
                .findFirst()
                .orElse(NONE);
    }

    /** @param code as it is stored; one that this version does not know hints at nothing */
    static Hint of(int code) {
        return code < BY_CODE.length ? BY_CODE[code] : NONE;
    }
}
