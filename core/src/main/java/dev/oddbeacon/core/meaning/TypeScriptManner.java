package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** TypeScript: the type stands behind a colon; a module is a file. */
final class TypeScriptManner implements Manner {
    private static final Set<Trait> TRAITS =
            EnumSet.of(Trait.ONE_SPACE, Trait.FUNCTIONS_WITHIN, Trait.TYPES_ARE_ALIASES);

    @Override
    public Set<Trait> traits() {
        return TRAITS;
    }

    @Override
    public List<Import> imports(CodeFile file) {
        return TypeScriptImports.imports(file);
    }

    @Override
    public Optional<Import> importedAt(CodeFile file, int token) {
        return TypeScriptImports.importedAt(file, token);
    }

    @Override
    public Optional<TypeName> type(Code code, int token) {
        return Optional.ofNullable(TypeScriptTypes.type(code, token, 0));
    }

    @Override
    public Member member(CodeFile file, Declared declared) {
        Code code = file.code();
        int name = file.nameToken(declared);
        List<TypeVariable> variables = variables(file, declared);
        int at = name + 1;
        at = code.is(at, '?') || code.is(at, '!') ? at + 1 : at;
        if (declared.kind().isCallable()) {
            int open = code.is(at, '<') ? TypeScriptTypes.angle(code, at) : at;
            List<TypeName> parameters = new ArrayList<>();
            int least = TypeScriptTypes.parameters(code, open, parameters);
            int behind = code.partner(open) + 1;
            Optional<TypeName> type = behind > 0 && code.is(behind, ':') ? type(code, behind + 1) : Optional.empty();
            boolean takesMore = least < 0;
            boolean isAccessor = code.is(name - 1, "get") || code.is(name - 1, "set");
            return new Member(
                    file.spot(declared),
                    type,
                    parameters,
                    takesMore,
                    takesMore ? -least - 1 : least,
                    variables,
                    isAccessor);
        }
        Optional<TypeName> type = code.is(at, ':') ? type(code, at + 1) : Optional.empty();
        if (type.isEmpty() && code.is(at, '=')) {
            type = created(code, at + 1).map(Created::type);
        }
        if (type.isEmpty() && declared.kind() == Kind.CONSTANT) {
            type = file.parent(declared)
                    .filter(owner -> owner.kind() == Kind.ENUM)
                    .map(owner -> new TypeName(List.of(file.name(owner)), List.of(), 0, name, name + 1));
        }
        return new Member(file.spot(declared), type, List.of(), false, 0, variables, false);
    }

    @Override
    public List<TypeVariable> variables(CodeFile file, Declared declared) {
        Code code = file.code();
        List<TypeVariable> variables = new ArrayList<>();
        int open = file.nameToken(declared) + 1;
        int end = code.is(open, '<') ? TypeScriptTypes.angle(code, open) : -1;
        for (int at = open + 1; at < end - 1; ) {
            while (code.is(at, "const") || code.is(at, "in") || code.is(at, "out")) {
                at++;
            }
            if (!code.isName(at)) {
                break;
            }
            TypeName bound = code.is(at + 1, "extends") ? TypeScriptTypes.type(code, at + 2, 1) : null;
            variables.add(new TypeVariable(code.text(at), Optional.ofNullable(bound)));
            at = bound == null ? at + 1 : bound.end();
            while (at < end - 1 && !code.is(at, ',')) {
                int angle = code.is(at, '<') ? TypeScriptTypes.angle(code, at) : -1;
                at = angle > 0 ? angle : Math.max(at, code.partner(at)) + 1;
            }
            at++;
        }
        return variables;
    }

    @Override
    public Optional<TypeName> underlying(CodeFile file, Declared declared) {
        Code code = file.code();
        int behind = file.nameToken(declared) + 1;
        int at = code.is(behind, '<') ? TypeScriptTypes.angle(code, behind) : behind;
        return declared.kind() == Kind.TYPE && code.is(at, '=') ? type(code, at + 1) : Optional.empty();
    }

    @Override
    public Optional<Created> created(Code code, int token) {
        if (code.is(token, "new") && !code.is(token - 1, '.')) {
            return Optional.ofNullable(TypeScriptTypes.withoutBrackets(code, token + 1, 0))
                    .map(type -> {
                        int open = type.end();
                        return new Created(
                                type, code.is(open, '(') && code.partner(open) > open ? code.partner(open) + 1 : open);
                    });
        }
        int open = code.is(token, "async") ? token + 1 : token;
        open = code.is(open, '<') ? TypeScriptTypes.angle(code, open) : open;
        if (open < 0 || !code.is(open, '(') || code.partner(open) < 0) {
            return Optional.empty();
        }
        int behind = code.partner(open) + 1;
        if (code.are(behind, "=>")) {
            return Optional.of(
                    new Created(new TypeName(List.of(Type.FUNCTION), List.of(), 0, token, behind), code.count()));
        }
        return code.is(behind, ':')
                ? type(code, behind + 1)
                        .filter(result -> code.are(result.end(), "=>"))
                        .map(result -> new Created(
                                new TypeName(List.of(Type.FUNCTION), List.of(result), 0, token, behind), code.count()))
                : Optional.empty();
    }

    @Override
    public Optional<Created> asserted(Code code, int token) {
        return code.is(token, "as") && !code.is(token + 1, "const")
                ? type(code, token + 1).map(type -> new Created(type, type.end()))
                : Optional.empty();
    }

    @Override
    public Optional<Prefix> prefix(Code code, int token) {
        if (code.is(token, "await")) {
            return Optional.of(new Prefix(Prefix.Effect.PROMISED, token + 1));
        }
        return Optional.empty();
    }

    @Override
    public int behindSign(Code code, int token) {
        if (code.are(token, "?.")) {
            return code.is(token + 2, '(') || code.is(token + 2, '[') ? token + 2 : token + 1;
        }
        return code.is(token, '!') && !code.is(token + 1, '=') ? token + 1 : token;
    }

    @Override
    public int lastOfReceiver(Code code, int dot) {
        return code.is(dot - 1, '?') || code.is(dot - 1, '!') ? dot - 2 : dot - 1;
    }

    @Override
    public boolean isKey(Code code, int token) {
        boolean isFirst =
                code.is(token - 1, '{') || code.is(token - 1, ',') || code.is(token - 1, ';') || code.isFirst(token);
        int at = code.is(token + 1, '?') ? token + 2 : token + 1;
        if (code.is(code.around(token), '(')) { // a parameter of what has no body
            return code.is(at, ':') && (code.is(token - 1, '(') || code.is(token - 1, ','));
        }
        if (!isFirst || !code.is(code.around(token), '{')) {
            return false;
        }
        if (code.is(at, ':')) {
            return true;
        }
        int close = code.is(at, '(') ? code.partner(at) : -1; // { sound() { … } }
        return close > 0 && code.is(token - 1, ',') && (code.is(close + 1, '{') || code.is(close + 1, ':'));
    }

    @Override
    public Optional<Local> local(CodeFile file, String name, int token) {
        return TypeScriptLocals.local(file, name, token, this);
    }

    @Override
    public boolean declaresLocal(CodeFile file, int token) {
        return TypeScriptLocals.declares(file.code(), token);
    }
}
