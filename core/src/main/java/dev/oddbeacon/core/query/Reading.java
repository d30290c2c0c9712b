package dev.oddbeacon.core.query;

import dev.oddbeacon.core.query.expression.ExpressionParser;

/** The ways to read the text of a search. */
public enum Reading {
    /** The whole text, literally. */
    PLAIN,
    /** A regular expression in RE2 syntax, matched within one line. */
    REGEX,
    /** Words and clauses, joined by and, or, not; see {@link ExpressionParser}. */
    EXPRESSION
}
