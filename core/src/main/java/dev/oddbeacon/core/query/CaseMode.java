package dev.oddbeacon.core.query;

/** Whether case counts. */
public enum CaseMode {
    /** It counts when the text has a capital among its literal letters. */
    AUTO,
    MATCH,
    IGNORE;

    /** Whether the case of a text is ignored. */
    public boolean ignores(String text) {
        return this == IGNORE || this == AUTO && text.codePoints().noneMatch(Character::isUpperCase);
    }
}
