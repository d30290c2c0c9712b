package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.TranslationsAnswer;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Translations;
import java.util.ArrayList;
import java.util.List;

/** What is told of a translated text. */
final class TranslationAnswers {
    private TranslationAnswers() {}

    static TranslationsAnswer of(
            View view, Branch branch, int branchNumber, Translations.Found found, Translations.Uses uses) {
        List<TranslationsAnswer.Use> lines = new ArrayList<>();
        for (LineAnswer.FileHits file : uses.lines().page()) {
            Branch of = view.branch(file.branchNumber());
            String path = view.snapshot(file.branchNumber()).path(file.file());
            for (Excerpt excerpt : file.excerpts()) {
                for (Excerpt.Line line : excerpt.lines()) {
                    if (line.isHit()) {
                        lines.add(new TranslationsAnswer.Use(
                                of.repository(),
                                of.name(),
                                path,
                                line.number(),
                                line.text().strip()));
                    }
                }
            }
        }
        return new TranslationsAnswer(
                branch.repository(),
                branch.name(),
                branch.commit(),
                found.key(),
                found.languages().stream()
                        .map(one -> new TranslationsAnswer.Language(
                                one.language(), view.snapshot(branchNumber).path(one.file()), one.line(), one.text()))
                        .toList(),
                lines.isEmpty() ? found.key() : uses.form(),
                lines,
                uses.lines().hits(),
                uses.lines().exact());
    }
}
