package dev.oddbeacon.core.source;

import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Lexer;
import dev.oddbeacon.core.source.outline.Outlines;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Finds out what texts are made of. Takes any text: what cannot be understood is code without declarations. Time and
 * memory grow with the length of the text. For one thread, which keeps it, because its tables are large.
 */
public final class Analyser {
    /**
     * Raised whenever the same text would be told otherwise: its type, traits, regions or declarations. What an earlier
     * version wrote is then written anew in the background, while it is searched.
     */
    public static final int VERSION = 5;

    private final Map<Language, Lexer> lexers = new HashMap<>();
    private final Found found = new Found();

    /** Analyses a text; a failure of ours is told by {@link Analysis#complete}, never thrown. */
    public Analysis analyse(Language language, byte[] utf8) {
        found.clear();
        try {
            return new Analysis(found, Outlines.of(language, utf8, this::lexer, found), true);
        } catch (RuntimeException e) {
            found.clear();
            return new Analysis(found, List.of(), false);
        }
    }

    /** The same without the net: tests want to know. */
    Analysis analyseOrFail(Language language, byte[] utf8) {
        found.clear();
        return new Analysis(found, Outlines.of(language, utf8, this::lexer, found), true);
    }

    private Lexer lexer(Language language) {
        return lexers.computeIfAbsent(language, Lexer::new);
    }
}
