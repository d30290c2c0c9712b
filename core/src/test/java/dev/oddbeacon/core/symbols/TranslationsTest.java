package dev.oddbeacon.core.symbols;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class TranslationsTest {
    private final MemoryTree tree = new MemoryTree();
    private Library library;

    @BeforeEach
    void open(@TempDir Path folder) {
        library = new Library(folder);
    }

    private TranslationsTest with(String path, String text) {
        tree.file(path, text.getBytes(StandardCharsets.UTF_8));
        return this;
    }

    private Optional<Translations.Found> at(String path, int line) throws IOException {
        if (library.view().branches().isEmpty()) {
            library.add("app", tree);
        }
        int file = library.view().snapshot(0).find(path).orElseThrow();
        return new Translations(library.view(), 0).at(file, line);
    }

    private List<String> told(Translations.Found found) {
        return found.languages().stream()
                .map(one -> one.language() + " " + library.view().snapshot(0).path(one.file()) + ":" + one.line() + " "
                        + one.text())
                .toList();
    }

    @Test
    void filesOfOtherLanguagesDifferInTheNameOfTheLanguageAlone() throws IOException {
        with("src/de/tickets.json", "{\n  \"until\": \"Gültig bis {date}\",\n  \"zone\": { \"all\": \"Alle\" }\n}\n");
        with("src/en/tickets.json", "{\n  \"zone\": { \"all\": \"All\" },\n  \"until\": \"Valid until {date}\"\n}\n");
        with("src/pt-BR/tickets.json", "{ \"zone\": {},\n \"all\": \"Tudo\",\n \"until\": \"Até {date}\" }\n");
        with("src/en/other.json", "{ \"until\": \"other\" }\n");
        with("src/zz/tickets.json", "{ \"until\": \"no language\" }\n");
        with("src/view.ts", "show(t('tickets.until'), t('tickets.zone.all'));\nconst until = 3;\n");

        Translations.Found until = at("src/de/tickets.json", 2).orElseThrow();
        assertThat(until.key()).isEqualTo("until");
        assertThat(told(until))
                .containsExactly(
                        "de src/de/tickets.json:2 \"until\": \"Gültig bis {date}\",",
                        "en src/en/tickets.json:3 \"until\": \"Valid until {date}\"",
                        "pt-BR src/pt-BR/tickets.json:3 \"until\": \"Até {date}\" }");
        assertThat(at("src/de/tickets.json", 3).orElseThrow())
                .satisfies(found -> assertThat(found.key()).isEqualTo("zone.all"))
                .satisfies(found -> assertThat(told(found)).hasSize(2));

        assertThat(at("src/de/tickets.json", 4)).as("only a brace").isEmpty();

        Translations.Uses uses = Translations.uses(
                until, new FileInHand("app", "src/de/tickets.json"), Scope.EVERYTHING, 9, library.context());
        assertThat(uses.lines().page())
                .singleElement()
                .satisfies(file ->
                        assertThat(library.view().snapshot(0).path(file.file())).isEqualTo("src/view.ts"));
        assertThat(uses.form()).isEqualTo("tickets.until");
        assertThat(uses.lines().hits())
                .as("the line that names it with its file")
                .isEqualTo(1);
    }

    @Test
    void theLanguageMayStandInTheNameOfTheFile() throws IOException {
        with("messages.properties", "depth = Depth\n");
        with("messages_de.properties", "# Tiefen\ndepth = Tiefe\n");
        with("messages_pt_BR.properties", "depth = Profundidade\n");
        with("locale/fr.yaml", "gauge:\n  low: Basse\ngauge.name: Jauge\n");
        with("locale/nl.yaml", "gauge:\n  low: Laag\n  high: Hoog\ngauge.name: Peil\n");
        assertThat(told(at("messages_de.properties", 2).orElseThrow()))
                .containsExactly(
                        "de messages_de.properties:2 depth = Tiefe",
                        "pt_BR messages_pt_BR.properties:1 depth = Profundidade");
        assertThat(told(at("locale/nl.yaml", 4).orElseThrow()))
                .containsExactly("nl locale/nl.yaml:4 gauge.name: Peil", "fr locale/fr.yaml:3 gauge.name: Jauge");
        assertThat(at("locale/fr.yaml", 2).orElseThrow().key()).isEqualTo("gauge.low");
        assertThat(at("locale/nl.yaml", 3)).as("in no other language").isEmpty();
    }

    @Test
    void whereNoKeyStandsNothingIsTold() throws IOException {
        with("de/a.json", "[1,\n 2]\n");
        with("en/a.json", "[1,\n 2]\n");
        with("plain.txt", "de\n");
        assertThat(at("de/a.json", 2)).isEmpty();
        assertThat(at("plain.txt", 1)).isEmpty();
        assertThat(at("de/a.json", 99)).isEmpty();
    }
}
