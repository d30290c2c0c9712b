package dev.oddbeacon.client.lsp;

import com.google.gson.Gson;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import java.util.List;
import java.util.Locale;

/**
 * What the editor sets: as options when it starts us, or as its section {@code oddbeacon} when they change.
 *
 * @param worklists whose open items are shown as diagnostics
 * @param watches of saved searches: what came since they are watched is shown as diagnostics
 * @param usesShown whether the number of uses stands above each declaration
 * @param symbolsIn where workspace symbols are looked for
 */
record EditorSettings(List<String> worklists, List<String> watches, boolean usesShown, SymbolsIn symbolsIn) {
    static final EditorSettings NONE = new EditorSettings(List.of(), List.of(), true, SymbolsIn.ALL);

    /** What the editor may write, for a message. */
    static final String FORM =
            "{\"worklists\": [\"NAME\"], \"watches\": [\"NAME\"], \"usesShown\": true, \"symbolsIn\": \"all\" or \"open\"}";

    /** Where workspace symbols are looked for. */
    enum SymbolsIn {
        /** In all repositories. */
        ALL,
        /** In the documents that are open. */
        OPEN
    }

    private record Given(List<String> worklists, List<String> watches, Boolean usesShown, String symbolsIn) {}

    /** @throws JsonParseException if they are of another form */
    static EditorSettings of(Object given) {
        if (!(given instanceof JsonObject object)) {
            return NONE;
        }
        JsonElement section = object.has("oddbeacon") ? object.get("oddbeacon") : object;
        Given values = new Gson().fromJson(section, Given.class);
        return values == null
                ? NONE
                : new EditorSettings(
                        values.worklists == null ? List.of() : values.worklists,
                        values.watches == null ? List.of() : values.watches,
                        values.usesShown == null || values.usesShown,
                        symbolsIn(values.symbolsIn));
    }

    private static SymbolsIn symbolsIn(String given) {
        try {
            return given == null ? SymbolsIn.ALL : SymbolsIn.valueOf(given.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new JsonParseException("symbolsIn is \"" + given + "\"", e);
        }
    }
}
