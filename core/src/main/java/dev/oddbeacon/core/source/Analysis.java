package dev.oddbeacon.core.source;

import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.outline.Declaration;
import java.util.List;

/**
 * What a text is made of. Valid until the {@link Analyser} that made it is used again.
 *
 * @param found regions that are not code, and names in code; without declarations that stand in no code, such as keys
 * @param declarations ordered by where their names stand, which are all different
 * @param complete false if the text was given up, and is taken as plain code
 */
public record Analysis(Found found, List<Declaration> declarations, boolean complete) {}
