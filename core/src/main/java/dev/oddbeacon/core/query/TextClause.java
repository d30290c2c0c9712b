package dev.oddbeacon.core.query;

import dev.oddbeacon.core.shape.Shape;

/** A condition on the text of files: the family of clauses that match somewhere. */
public sealed interface TextClause extends Query {
    /** Literal text, which may span lines. */
    record Text(String text) implements TextClause {
        /** Text that was typed or pasted: CRLF becomes a line feed, and a last line break is dropped. */
        public static Text pasted(String text) {
            String lines = text.replace("\r\n", "\n");
            boolean drops = lines.length() > 1 && lines.endsWith("\n");
            return new Text(drops ? lines.substring(0, lines.length() - 1) : lines);
        }
    }

    /** Text in which {@code *} stands for any number of word characters and {@code ?} for one. */
    record Wildcard(String pattern) implements TextClause {}

    /** A regular expression, matched within a line. */
    record Pattern(String regex) implements TextClause {}

    /** A whole word of similar spelling. */
    record Like(String word) implements TextClause {}

    /** A number between two bounds, however it is written. */
    record NumberIn(Bounds bounds) implements TextClause {}

    /** What a sentence with values filled in was made from. */
    record Filled(String sentence) implements TextClause {}

    /** Two texts with at most so many words between them, in either order. */
    record Near(int words, Query left, Query right) implements TextClause {}

    /** Two texts on one line that do not overlap. */
    record OnLine(Query left, Query right) implements TextClause {}

    /** What only the analysis of a file's content can tell, whatever a search looks for. */
    sealed interface OfCode extends TextClause {}

    /**
     * Where a symbol is declared or used.
     *
     * @param name see {@link SymbolName}
     */
    record Symbol(SymbolRole role, String name) implements OfCode {}

    /** Code of a certain shape, which may span lines. */
    record OfShape(Shape shape) implements OfCode {}
}
