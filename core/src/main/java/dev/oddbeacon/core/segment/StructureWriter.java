package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.WordTable;
import dev.oddbeacon.core.source.outline.Declaration;
import java.util.Arrays;
import java.util.List;

/**
 * Writes what analysis found, piece by piece, so that a piece can be read without those before it. Read by
 * {@link PieceStructure}. Numbers are seven bits a byte, lowest first.
 *
 * <pre>
 *   regions of a piece        for each that is not code: bytes of code before it, then twice its length, plus one if it
 * is a string
 *   declarations of a piece   for each whose name starts there:
 *     kind (1)                by its number; 80 is added if a qualifier follows
 *     name                    bytes from the name before, or from the start of the piece
 *     length                  of the name
 *     parent                  how many declarations back it stands; 0 for none
 *     start                   bytes that it begins before its name
 *     head                    bytes that what it says of itself goes on after its name
 *     end                     bytes that follow
 *     qualifier, length       bytes that it begins before the name, and its length
 * </pre>
 */
final class StructureWriter {
    static final int QUALIFIED = 0x80;

    private byte[] regions = new byte[1 << 16];
    private int regionBytes;
    private byte[] declarations = new byte[1 << 16];
    private int declarationBytes;
    private final NamesBuilder names;
    // of the text at hand
    private byte[] text;
    private Found found;
    private List<Declaration> declared = List.of();
    private int region;
    private int name;
    private int declaration;

    StructureWriter(NamesBuilder names) {
        this.names = names;
    }

    void begin(byte[] utf8, Analysis analysis) {
        text = utf8;
        found = analysis.found();
        declared = analysis.declarations();
        region = 0;
        name = 0;
        declaration = 0;
    }

    /** Declarations of the text at hand that were written so far. */
    int declarationsBefore() {
        return declaration;
    }

    int regionBytes() {
        return regionBytes;
    }

    int declarationBytes() {
        return declarationBytes;
    }

    /** Adds what lies in a piece; pieces of a text follow one another. */
    void piece(int start, int end, int piece) {
        int at = start;
        while (region < found.regions() && found.regionStart(region) < end) {
            int from = Math.max(start, found.regionStart(region));
            int to = Math.min(end, found.regionEnd(region));
            regions = room(regions, regionBytes);
            regionBytes = NamesBuilder.put(regions, regionBytes, from - at);
            regionBytes = NamesBuilder.put(
                    regions,
                    regionBytes,
                    (to - from) << 1 | (found.region(region) == dev.oddbeacon.core.source.Region.STRING ? 1 : 0));
            at = to;
            if (found.regionEnd(region) > end) {
                break;
            }
            region++;
        }
        int before = start;
        while (declaration < declared.size() && declared.get(declaration).nameStart() < end) {
            Declaration one = declared.get(declaration);
            names(one.nameStart(), piece);
            boolean isName = name < found.names()
                    && found.nameStart(name) == one.nameStart()
                    && found.nameEnd(name) == one.nameEnd();
            long hash = isName ? found.nameHash(name) : WordTable.hash(text, one.nameStart(), one.nameEnd());
            names.addDeclaration(text, one.nameStart(), one.nameEnd(), hash, piece, one.kind());
            if (one.kind().isUse()) {
                names.addUse(text, one.nameStart(), one.nameEnd(), hash, piece);
            }
            if (name < found.names() && found.nameStart(name) == one.nameStart()) {
                name++;
            }
            write(one, before);
            before = one.nameStart();
            declaration++;
        }
        names(end, piece);
    }

    /** Adds the names up to an offset. */
    private void names(int until, int piece) {
        while (name < found.names() && found.nameStart(name) < until) {
            names.addUse(text, found.nameStart(name), found.nameEnd(name), found.nameHash(name), piece);
            name++;
        }
    }

    private void write(Declaration one, int before) {
        declarations = room(declarations, declarationBytes);
        boolean qualified = one.qualifierEnd() > one.qualifierStart() && one.qualifierStart() < one.nameStart();
        int at = declarationBytes;
        declarations[at++] = (byte) (one.kind().code() | (qualified ? QUALIFIED : 0));
        at = NamesBuilder.put(declarations, at, one.nameStart() - before);
        at = NamesBuilder.put(declarations, at, one.nameEnd() - one.nameStart());
        at = NamesBuilder.put(
                declarations, at, one.parent() < 0 || one.parent() >= declaration ? 0 : declaration - one.parent());
        at = NamesBuilder.put(declarations, at, one.nameStart() - one.start());
        at = NamesBuilder.put(declarations, at, one.headEnd() - one.nameEnd());
        at = NamesBuilder.put(declarations, at, one.end() - one.headEnd());
        if (qualified) {
            at = NamesBuilder.put(declarations, at, one.nameStart() - one.qualifierStart());
            at = NamesBuilder.put(declarations, at, one.qualifierEnd() - one.qualifierStart());
        }
        declarationBytes = at;
    }

    private static byte[] room(byte[] bytes, int size) {
        return size + 64 > bytes.length ? Arrays.copyOf(bytes, bytes.length * 2) : bytes;
    }

    byte[] regions() {
        return regions;
    }

    byte[] declarations() {
        return declarations;
    }

    void clear() {
        regionBytes = 0;
        declarationBytes = 0;
    }
}
