package dev.oddbeacon.core.source;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What the content of a file says about its type. The order is that of the file format: add at the end. */
public enum Hint {
    NONE, SHELL, PYTHON, PERL, RUBY, JAVASCRIPT, TYPESCRIPT, PHP, LUA, MAKE, AWK, TCL, SED, GROOVY, C, CPP, OBJECTIVEC, MATLAB, XML, HTML, SVG, JSON, YAML, TOML, INI, TROFF,
    JAVA, GO, RUST, KOTLIN, SCALA, SQL, CSS, MARKDOWN, RST, EMACSLISP, LISP, SCHEME, CLOJURE, HASKELL, OCAML, ERLANG, ELIXIR, R, JULIA, SWIFT, VIM, DIFF;

    private static final Hint[] VALUES = values();

    /** The type that is hinted at. */
    public Optional<String> type() {
        return this == NONE ? Optional.empty() : Optional.of(name().toLowerCase(Locale.ROOT));
    }

    static Hint of(String type) {
        return Arrays.stream(VALUES).filter(hint -> hint != NONE && hint.name().toLowerCase(Locale.ROOT).equals(type)).findFirst().orElse(NONE);
    }

    static Hint at(int ordinal) {
        return ordinal < VALUES.length ? VALUES[ordinal] : NONE;
    }
}
