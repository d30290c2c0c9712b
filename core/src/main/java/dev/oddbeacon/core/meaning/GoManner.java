package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Go: the type stands behind; a package is a folder. */
final class GoManner implements Manner {
    private static final Set<Trait> TRAITS = EnumSet.of(Trait.ONE_SPACE, Trait.METHODS_OUTSIDE, Trait.EMBEDS);
    private static final int DEEPEST = 50;

    @Override
    public Set<Trait> traits() {
        return TRAITS;
    }

    @Override
    public List<Import> imports(CodeFile file) {
        Code code = file.code();
        List<Import> imports = new ArrayList<>();
        for (int token = 0; token < code.count() && !code.is(token, "func") && !code.is(token, "type"); token++) {
            if (!code.is(token, "import")) {
                continue;
            }
            int close = code.is(token + 1, '(') ? code.partner(token + 1) : token + 3;
            for (int at = token + 1; at < close && at < code.count(); at++) {
                if (code.isLiteral(at)) {
                    String path = unquoted(code.text(at));
                    boolean isNamed = code.isName(at - 1) && !code.isFirst(at);
                    boolean isOfAll = code.is(at - 1, '.');
                    String alias = isOfAll ? "" : isNamed ? code.text(at - 1) : lastPart(path);
                    imports.add(new Import(path, "", alias, isOfAll));
                    if (close == token + 3) {
                        break;
                    }
                }
            }
        }
        return imports;
    }

    private static String unquoted(String text) {
        return text.length() < 2 ? "" : text.substring(1, text.length() - 1);
    }

    /** The name that a package has most likely: the last part of its path, unless that is a version. */
    static String lastPart(String path) {
        int slash = path.lastIndexOf('/');
        String last = path.substring(slash + 1);
        boolean isVersion = last.length() > 1 && last.charAt(0) == 'v' && Character.isDigit(last.charAt(1));
        return isVersion && slash > 0 ? lastPart(path.substring(0, slash)) : last;
    }

    @Override
    public Optional<TypeName> type(Code code, int token) {
        return Optional.ofNullable(GoTypes.type(code, token, 0));
    }

    @Override
    public Member member(CodeFile file, Declared declared) {
        Code code = file.code();
        int name = file.nameToken(declared);
        if (declared.kind().isCallable()) {
            int open = GoTypes.variables(code, name + 1, new ArrayList<>());
            List<TypeName> parameters = new ArrayList<>();
            boolean takesMore = GoTypes.parameters(code, open, parameters);
            return new Member(
                    file.spot(declared),
                    GoTypes.result(code, code.partner(open) + 1),
                    parameters,
                    takesMore,
                    parameters.size() - (takesMore ? 1 : 0),
                    variables(file, declared),
                    false);
        }
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1)) { // depth, width int
            at += 2;
        }
        Optional<TypeName> type = code.isFirst(at) ? Optional.empty() : type(code, at);
        if (type.isEmpty() && code.is(at, '=')) {
            type = created(code, code.is(at + 1, '&') ? at + 2 : at + 1).map(Created::type);
        }
        return new Member(file.spot(declared), type, List.of(), false, 0, List.of(), false);
    }

    @Override
    public Optional<TypeName> underlying(CodeFile file, Declared declared) {
        Code code = file.code();
        int behind = GoTypes.variables(code, file.nameToken(declared) + 1, new ArrayList<>());
        return declared.kind() == Kind.TYPE ? type(code, code.is(behind, '=') ? behind + 1 : behind) : Optional.empty();
    }

    @Override
    public List<TypeVariable> variables(CodeFile file, Declared declared) {
        Code code = file.code();
        List<TypeVariable> variables = new ArrayList<>();
        int name = file.nameToken(declared);
        if (declared.kind() != Kind.METHOD) {
            GoTypes.variables(code, name + 1, variables);
        } else if (code.is(name - 1, ')')) { // func (s *Set[K]) Has(…)
            for (int at = code.partner(name - 1); at < name && at > 0; at++) {
                boolean isNamed = code.isName(at) && (code.is(at - 1, '[') || code.is(at - 1, ','));
                if (isNamed) {
                    variables.add(new TypeVariable(code.text(at), Optional.empty()));
                }
            }
        }
        return variables;
    }

    @Override
    public Optional<Created> created(Code code, int token) {
        if ((code.is(token, "make") || code.is(token, "new")) && code.is(token + 1, '(')) {
            return type(code, token + 2).map(type -> new Created(type, code.partner(token + 1) + 1));
        }
        boolean isType = code.isName(token)
                || code.is(token, '[')
                || code.is(token, "map")
                || code.is(token, "struct")
                || code.is(token, "func");
        return !isType
                ? Optional.empty()
                : type(code, token)
                        .filter(type -> code.partner(type.end()) > type.end())
                        .filter(type -> code.is(token, "func") || isOpenedBy(code, type, !code.isName(token)))
                        .map(type -> new Created(type, code.partner(type.end()) + 1));
    }

    /** Whether what stands in braces, or in brackets, right behind a type makes a value of it. */
    private static boolean isOpenedBy(Code code, TypeName type, boolean mayConvert) {
        int open = type.end();
        return code.start(open) == code.end(open - 1) && (code.is(open, '{') || mayConvert && code.is(open, '('));
    }

    @Override
    public Optional<Created> asserted(Code code, int token) {
        return code.is(token, '.') && code.is(token + 1, '(')
                ? type(code, token + 2)
                        .filter(type -> type.end() == code.partner(token + 1))
                        .map(type -> new Created(type, type.end() + 1))
                : Optional.empty();
    }

    @Override
    public Optional<Prefix> prefix(Code code, int token) {
        if (code.are(token, "<-")) {
            return Optional.of(new Prefix(Prefix.Effect.ELEMENT, token + 2));
        }
        boolean isSign = code.is(token, '&')
                || code.is(token, '*')
                || code.is(token, '-')
                || code.is(token, '+')
                || code.is(token, '!')
                || code.is(token, '^');
        return isSign ? Optional.of(new Prefix(Prefix.Effect.SAME, token + 1)) : Optional.empty();
    }

    @Override
    public Optional<TypeName> filled(Code code, int token) {
        int brace = code.around(token);
        boolean isKey = code.is(brace, '{')
                && code.is(token + 1, ':')
                && !code.is(token + 2, '=')
                && (code.is(token - 1, '{') || code.is(token - 1, ','));
        return isKey ? Optional.ofNullable(filling(code, brace, 0)) : Optional.empty();
    }

    /** The type of the value whose braces open at a token; null if it cannot be told. */
    private static TypeName filling(Code code, int brace, int depth) {
        if (depth > DEEPEST || brace <= 0) {
            return null;
        }
        boolean isInner = code.is(brace - 1, '{') || code.is(brace - 1, ',') || code.is(brace - 1, ':');
        if (!isInner) {
            int start = typeBefore(code, brace);
            TypeName written = start < 0 ? null : GoTypes.type(code, start, 0);
            return written == null || written.end() != brace ? null : written;
        }
        TypeName outer = filling(code, code.around(brace), depth + 1);
        if (outer == null) {
            return null;
        }
        if (outer.dimensions() > 0) {
            return outer.withDimensions(-1);
        }
        boolean isMap =
                outer.parts().equals(List.of(Type.MAP)) && outer.arguments().size() == 2;
        return isMap ? outer.arguments().get(code.is(brace - 1, ':') ? 1 : 0) : null;
    }

    /** The first token of a type that ends right before a brace; negative if there is none. */
    private static int typeBefore(Code code, int brace) {
        int at = brace - 1;
        if (code.is(at, ']') && code.partner(at) > 0 && code.isName(code.partner(at) - 1)) { // Set[string]{
            at = code.partner(at) - 1;
        }
        if (!code.isName(at)) {
            return -1;
        }
        at = code.is(at - 1, '.') && code.isName(at - 2) ? at - 2 : at;
        while (true) {
            int before = code.is(at - 1, '*') ? at - 2 : at - 1;
            if (!code.is(before, ']') || code.partner(before) < 0) {
                return at;
            }
            int open = code.partner(before);
            at = code.is(open - 1, "map") ? open - 1 : open;
        }
    }

    @Override
    public Optional<Local> local(CodeFile file, String name, int token) {
        return GoLocals.local(file, name, token, this);
    }

    @Override
    public boolean declaresLocal(CodeFile file, int token) {
        return GoLocals.declares(file.code(), token);
    }
}
