package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Symbols, outlines and regions on the demo, through the interface and the client. */
class SymbolsTest {
    private static final String PLANNER = "src/main/java/quillhaven/berth/plan/BerthPlanner.java";

    private static JsonNode get(String path, String... parameters) {
        return Http.get(Demo.address(), "/api/v1" + path, parameters).json();
    }

    private static List<String> symbols(String... parameters) {
        List<String> found = new ArrayList<>();
        for (JsonNode symbol : get("/search/symbols", parameters).path("symbols")) {
            String path = symbol.path("path").asString();
            found.add(
                    (symbol.path("kind").isNull() ? "use" : symbol.path("kind").asString()) + " "
                            + symbol.path("name").asString() + " " + path.substring(path.lastIndexOf('/') + 1) + ":"
                            + symbol.path("line").asInt());
        }
        return found;
    }

    @Test
    void aDeclarationIsFoundByPartsOfItsQualifiedName() {
        assertThat(symbols("q", "BerthPlanner.assign")).startsWith("method assign BerthPlanner.java:36");
        assertThat(symbols("q", "planner assign", "type", "java")).startsWith("method assign BerthPlanner.java:36");
        assertThat(symbols("q", "bp", "kind", "class")).startsWith("class BerthPlanner BerthPlanner.java:17");
    }

    @Test
    void usesAreCountedAndPagesFollowEachOther() {
        JsonNode all = get("/search/symbols", "q", "stays", "reading", "plain", "role", "any", "limit", "1000");
        assertThat(all.path("counts").path("exact").asBoolean()).isTrue();
        assertThat(all.path("symbols"))
                .hasSize(all.path("counts").path("symbols").asInt());
        List<String> paged = new ArrayList<>();
        String cursor = "";
        do {
            JsonNode page = get(
                    "/search/symbols", "q", "stays", "reading", "plain", "role", "any", "limit", "7", "cursor", cursor);
            page.path("symbols")
                    .forEach(symbol -> paged.add(
                            symbol.path("path").asString() + symbol.path("line").asInt() + ":"
                                    + symbol.path("column").asInt()));
            cursor = page.path("next").isNull() ? "" : page.path("next").asString();
        } while (!cursor.isEmpty());
        List<String> whole = new ArrayList<>();
        all.path("symbols")
                .forEach(symbol -> whole.add(
                        symbol.path("path").asString() + symbol.path("line").asInt() + ":"
                                + symbol.path("column").asInt()));
        assertThat(paged).isEqualTo(whole).doesNotHaveDuplicates();
    }

    @Test
    void anOutlineTellsWhatAFileDeclares() {
        JsonNode outline = get("/repositories/berth-planner/outline", "path", PLANNER);
        assertThat(outline.path("language").asString()).isEqualTo("java");
        List<String> names = new ArrayList<>();
        outline.path("symbols").forEach(symbol -> names.add(symbol.path("name").asString()));
        assertThat(names)
                .containsExactly(
                        "quillhaven.berth.plan",
                        "BerthPlanner",
                        "berths",
                        "rules",
                        "BerthPlanner",
                        "plan",
                        "assign",
                        "assignByPushing",
                        "violations");
        assertThat(outline.path("symbols").get(6).path("signature").asString())
                .isEqualTo("private Optional<Stay> assign(Call call, List<Stay> stays)");
    }

    @Test
    void aNameLeadsToItsDeclarationAndItsUses() {
        JsonNode berth = get("/repositories/berth-planner/symbol", "path", PLANNER, "line", "18", "column", "26");
        assertThat(berth.path("name").asString()).isEqualTo("Berth");
        assertThat(berth.path("declarations").get(0).path("path").asString()).endsWith("model/Berth.java");
        assertThat(berth.path("declarations").get(0).path("reason").asString())
                .isEqualTo("the types that are written lead here");
        assertThat(berth.path("uses").asInt())
                .isEqualTo(symbols("q", "Berth", "reading", "plain", "role", "use", "case", "match", "limit", "1000")
                        .size());
        JsonNode assign = get("/repositories/berth-planner/symbol", "path", PLANNER, "line", "36", "column", "28");
        assertThat(assign.path("usesMeant").path("sure").asInt()).isEqualTo(3);
        JsonNode uses =
                get("/search/symbols", "of", assign.path("usesMeant").path("of").asString(), "role", "use");
        assertThat(uses.path("symbols").findValuesAsString("certainty")).containsExactly("sure", "sure", "sure");
        JsonNode source = get(
                "/repositories/berth-planner/symbol",
                "path",
                "src/main/java/quillhaven/berth/tide/TideSource.java",
                "line",
                "6",
                "column",
                "20");
        assertThat(source.path("subtypes").findValuesAsString("name")).contains("TidewatchClient");
        assertThat(Http.get(
                                Demo.address(),
                                "/api/v1/repositories/berth-planner/symbol",
                                "path",
                                PLANNER,
                                "line",
                                "17",
                                "column",
                                "1")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aTranslatedTextLeadsToTheOtherLanguagesAndToTheCodeThatShowsIt() {
        String german = "src/translations/de/tickets.json";
        JsonNode found = get("/repositories/passenger-app/translations", "path", german, "line", "3");
        assertThat(found.path("key").asString()).isEqualTo("validUntil");
        assertThat(found.path("languages").path(0).path("path").asString()).isEqualTo(german);
        assertThat(found.path("languages").size()).isGreaterThan(5);
        assertThat(found.path("languages").toString()).contains("Valid until {date}");
        assertThat(found.path("form").asString()).isEqualTo("tickets.validUntil");
        assertThat(found.path("uses").path(0).path("path").asString()).isEqualTo("src/components/TicketWallet.vue");

        List<String> printed = Client.run(Demo.address(), "translations", "passenger-app:" + german + ":3")
                .lines();
        assertThat(printed.getFirst())
                .isEqualTo("de\tpassenger-app/" + german + ":3: \"validUntil\": \"Gültig bis {date}\",");
        assertThat(printed.getLast()).startsWith("code\tpassenger-app/src/components/TicketWallet.vue:13: ");
        Client.Result none = Client.run(Demo.address(), "translations", "passenger-app:README.md:1");
        assertThat(none.status()).isNotZero();
        assertThat(none.err()).contains("No key that another language has");
    }

    @Test
    void codeLeadsToItsTestAndBack() {
        JsonNode test = get("/repositories/berth-planner/counterparts", "path", PLANNER);
        assertThat(test.path("byConvention").get(0).asString())
                .isEqualTo("src/test/java/quillhaven/berth/plan/BerthPlannerTest.java");
        JsonNode back = get(
                "/repositories/berth-planner/counterparts",
                "path",
                "src/test/java/quillhaven/berth/plan/BerthPlannerTest.java");
        assertThat(back.path("test").asBoolean()).isTrue();
        assertThat(back.path("byConvention").get(0).asString()).isEqualTo(PLANNER);
    }

    @Test
    void linesKnowWhatTheyDeclareAndWhatIsAround() {
        JsonNode answer = get("/search/lines", "q", "assign(", "repo", "berth-planner", "type", "java");
        List<Integer> declaring = new ArrayList<>();
        answer.path("files")
                .get(0)
                .path("excerpts")
                .forEach(excerpt -> excerpt.path("lines").forEach(line -> {
                    if (line.path("declares").asBoolean()) {
                        declaring.add(line.path("number").asInt());
                    }
                }));
        assertThat(declaring).containsExactly(36);
        assertThat(answer.path("files")
                        .get(0)
                        .path("excerpts")
                        .get(0)
                        .path("enclosing")
                        .path("name")
                        .asString())
                .isEqualTo("plan");
    }

    @Test
    void regionsOfTheScopeAndOfExpressionsAgree() {
        int byScope = get("/search/lines", "q", "tide", "region", "comment", "counts", "exact")
                .path("counts")
                .path("hits")
                .asInt();
        int byClause = get("/search/lines", "q", "comment(tide)", "reading", "expression", "counts", "exact")
                .path("counts")
                .path("hits")
                .asInt();
        int all = get("/search/lines", "q", "tide", "counts", "exact")
                .path("counts")
                .path("hits")
                .asInt();
        assertThat(byScope).isEqualTo(byClause).isPositive().isLessThan(all);
        assertThat(Http.get(Demo.address(), "/api/v1/search/lines", "q", "tide", "region", "margin")
                        .json()
                        .path("detail")
                        .asString())
                .contains("code, comment, string");
    }

    @Test
    void theClientPrintsSymbolsAndOutlines() {
        assertThat(Client.run(Demo.address(), "symbols", "--kind", "class", "BerthPlanner")
                        .out()
                        .lines()
                        .findFirst()
                        .orElseThrow())
                .isEqualTo("berth-planner/" + PLANNER + ":17:20: public final class BerthPlanner {");
        Client.Result json =
                Client.run(Demo.address(), "symbols", "--plain", "--role", "use", "assign", "--format", "jsonl");
        assertThat(json.out().lines())
                .isNotEmpty()
                .allMatch(line -> line.contains("\"role\":\"use\"") && line.contains("\"name\":\"assign\""));
        assertThat(Client.run(Demo.address(), "outline", "berth-planner:" + PLANNER)
                        .out())
                .contains("class", "BerthPlanner", "36-44", "assign");
        assertThat(Client.run(Demo.address(), "symbols", "nothing_is_called_so").status())
                .isEqualTo(1);
        assertThat(Client.run(Demo.address(), "symbols", "--kind", "gadget", "x")
                        .status())
                .isEqualTo(2);
        assertThat(Client.run(Demo.address(), "lines", "--region", "comment", "tidewatch")
                        .out())
                .contains("TidewatchClient.java:11");
    }
}
