package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import java.lang.foreign.ValueLayout;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/** A file at a place: its code, what it declares, what it imports. Not for several threads. */
final class CodeFile {
    private final SegmentReader segment;
    private final int blob;
    private final int branchNumber;
    private final int file;
    private final Language language;
    private final List<Declared> declarations = new ArrayList<>();
    private final Code code;
    private List<Import> imports = List.of();
    private boolean importsKnown;
    private Map<Integer, List<Declared>> typesByParent;
    private final Map<String, int[]> declaring = new HashMap<>();

    CodeFile(SegmentReader segment, int blob, Language language, int branchNumber, int file) {
        this.segment = segment;
        this.blob = blob;
        this.language = language;
        this.branchNumber = branchNumber;
        this.file = file;
        for (int piece = segment.firstPiece(blob); piece < segment.firstPiece(blob + 1); piece++) {
            declarations.addAll(segment.declarations(piece));
        }
        long start = segment.start(blob);
        this.code = Code.of(
                language,
                segment.content().asSlice(start, segment.end(blob) - start).toArray(ValueLayout.JAVA_BYTE));
    }

    SegmentReader segment() {
        return segment;
    }

    int blob() {
        return blob;
    }

    int branchNumber() {
        return branchNumber;
    }

    int file() {
        return file;
    }

    Language language() {
        return language;
    }

    Code code() {
        return code;
    }

    List<Declared> declarations() {
        return declarations;
    }

    Declared declaration(int number) {
        return declarations.get(number);
    }

    String name(Declared declared) {
        return segment.name(declared);
    }

    Spot spot(Declared declared) {
        return new Spot(segment, blob, declared, branchNumber, file);
    }

    /** The token at an offset in the content of the segment. */
    int token(long offset) {
        return code.at(offset - segment.start(blob));
    }

    /** The offset of a token in the content of the segment. */
    long offset(int token) {
        return segment.start(blob) + code.start(token);
    }

    /** The token of a declaration's name. */
    int nameToken(Declared declared) {
        return token(declared.nameStart());
    }

    /** Whether a token is the name of a declaration. */
    boolean isDeclared(int token) {
        int before = before(offset(token));
        return before > 0
                && declarations.get(before - 1).nameStart() == offset(token)
                && !declarations.get(before - 1).kind().isUse();
    }

    /** The number of declarations whose names begin at an offset, or before. */
    private int before(long offset) {
        int low = 0;
        int high = declarations.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (declarations.get(middle).nameStart() <= offset) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** The innermost declaration around a token whose name stands before it; uses that the position marks are none. */
    Optional<Declared> enclosing(int token) {
        long offset = offset(token);
        int low = before(offset);
        if (low == 0) {
            return Optional.empty();
        }
        Declared found = declarations.get(low - 1);
        while (found.end() <= offset || found.kind().isUse()) {
            if (found.parent() < 0) {
                return Optional.empty();
            }
            found = declarations.get(found.parent());
        }
        return Optional.of(found);
    }

    Optional<Declared> parent(Declared declared) {
        return declared.parent() < 0 ? Optional.empty() : Optional.of(declarations.get(declared.parent()));
    }

    /** The tokens, in order, by which members of a name or, as a language says, its variables are declared. */
    int[] declaring(String name, Manner manner) {
        return declaring.computeIfAbsent(
                name,
                _ -> IntStream.range(0, code.count())
                        .filter(token -> code.isName(token) && code.is(token, name))
                        .filter(token -> isDeclared(token) || manner.declaresLocal(this, token))
                        .toArray());
    }

    /** The types that stand in a declaration; -1 for those that stand in none, or in the package of the file. */
    List<Declared> typesIn(int parent) {
        if (typesByParent == null) {
            typesByParent = new HashMap<>();
            for (Declared one : declarations) {
                if (one.kind().isType()) {
                    boolean isOutermost =
                            one.parent() >= 0 && declarations.get(one.parent()).kind() == Kind.NAMESPACE;
                    typesByParent
                            .computeIfAbsent(isOutermost ? -1 : one.parent(), _ -> new ArrayList<>())
                            .add(one);
                }
            }
        }
        return typesByParent.getOrDefault(parent, List.of());
    }

    /** The package or module that it says it is in; empty if it says nothing. */
    String namespace() {
        return declarations.stream()
                .filter(one -> one.kind() == Kind.NAMESPACE)
                .findFirst()
                .map(this::name)
                .orElse("");
    }

    List<Import> imports(Manner manner) {
        if (!importsKnown) {
            imports = manner.imports(this);
            importsKnown = true;
        }
        return imports;
    }
}
