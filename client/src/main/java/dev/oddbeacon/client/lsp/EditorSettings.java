package dev.oddbeacon.client.lsp;

import com.google.gson.Gson;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import java.util.List;

/**
 * What the editor sets: as options when it starts us, or as its section {@code oddbeacon} when they change.
 *
 * @param worklists whose open items are shown as diagnostics
 * @param usesShown whether the number of uses stands above each declaration
 */
record EditorSettings(List<String> worklists, boolean usesShown) {
    static final EditorSettings NONE = new EditorSettings(List.of(), true);

    private record Given(List<String> worklists, Boolean usesShown) {}

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
                        values.usesShown == null || values.usesShown);
    }
}
