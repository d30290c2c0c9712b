package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;

/**
 * A declaration in a text, or a use of which the position says something. Offsets are bytes.
 *
 * @param qualifierStart where the text stands that names what it belongs to, if that is not what it stands in
 * @param qualifierEnd equal to the start if there is none
 * @param parent the number of the declaration that it stands in, -1 if there is none
 * @param start where it starts, its modifiers included
 * @param headEnd where what it says of itself ends and its body begins
 * @param end where it ends
 */
public record Declaration(
        Kind kind,
        int nameStart,
        int nameEnd,
        int qualifierStart,
        int qualifierEnd,
        int parent,
        int start,
        int headEnd,
        int end) {}
