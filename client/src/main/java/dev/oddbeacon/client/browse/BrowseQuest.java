package dev.oddbeacon.client.browse;

import dev.oddbeacon.client.options.ReadingOptions;
import java.util.List;

/**
 * What a reader in the terminal asks for. Immutable.
 *
 * @param reading one of the subject's
 * @param scope options of the scope, as one types them: {@code --repo fare-gate --type go}
 */
record BrowseQuest(
        Subject subject, String text, String reading, ReadingOptions.CaseMode caseMode, boolean word, String scope) {
    /** The subject of a search in the terminal, and the readings of its text, the usual one first. */
    enum Subject {
        LINES("plain", "regex", "expression"),
        FILES("fragments", "plain", "glob", "regex", "expression");

        private final List<String> readings;

        Subject(String... readings) {
            this.readings = List.of(readings);
        }
    }

    BrowseQuest withText(String changed) {
        return new BrowseQuest(subject, changed, reading, caseMode, word, scope);
    }

    BrowseQuest withScope(String changed) {
        return new BrowseQuest(subject, text, reading, caseMode, word, changed);
    }

    /** The other subject, with the same reading if it has that. */
    BrowseQuest nextSubject() {
        Subject other = subject == Subject.LINES ? Subject.FILES : Subject.LINES;
        boolean isUsual = reading.equals(subject.readings.getFirst());
        return new BrowseQuest(
                other,
                text,
                !isUsual && other.readings.contains(reading) ? reading : other.readings.getFirst(),
                caseMode,
                word,
                scope);
    }

    BrowseQuest nextReading() {
        return new BrowseQuest(
                subject,
                text,
                subject.readings.get((subject.readings.indexOf(reading) + 1) % subject.readings.size()),
                caseMode,
                word,
                scope);
    }

    BrowseQuest nextCase() {
        ReadingOptions.CaseMode[] modes = ReadingOptions.CaseMode.values();
        return new BrowseQuest(subject, text, reading, modes[(caseMode.ordinal() + 1) % modes.length], word, scope);
    }

    BrowseQuest otherWord() {
        return new BrowseQuest(subject, text, reading, caseMode, !word, scope);
    }
}
