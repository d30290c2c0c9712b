package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Analyser;
import java.io.IOException;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;

/**
 * What a file of the index says of itself.
 *
 * @param group of repositories whose text it holds; empty where there is one for all
 * @param analysis the version of the analysis that its text was told by, see {@link Analyser#VERSION}
 */
public record About(String group, int analysis) {
    /** Of files that were written before they said it. */
    private static final About EARLIER = new About("", 0);

    private static final int ROW = 4;

    /** Of what is written now. */
    public static About now(String group) {
        return new About(group, Analyser.VERSION);
    }

    /** Whether the same text would be told otherwise now. */
    public boolean isOutdated() {
        return analysis < Analyser.VERSION;
    }

    /** Writes it as a section. */
    public void write(SectionWriter out, int kind) throws IOException {
        byte[] name = group.getBytes(StandardCharsets.UTF_8);
        out.u32(analysis).bytes(name, name.length);
        out.endSection(kind);
    }

    /** Reads the section, which files of before do not have. */
    public static About read(SectionReader sections, int kind) throws DamagedFileException {
        if (!sections.has(kind)) {
            return EARLIER;
        }
        sections.verify(kind);
        byte[] bytes = sections.section(kind).toArray(ValueLayout.JAVA_BYTE);
        if (bytes.length < ROW) {
            throw new DamagedFileException(sections.file(), "section " + kind + " is cut");
        }
        return new About(
                new String(bytes, ROW, bytes.length - ROW, StandardCharsets.UTF_8),
                sections.section(kind).get(SectionFile.INT, 0));
    }
}
