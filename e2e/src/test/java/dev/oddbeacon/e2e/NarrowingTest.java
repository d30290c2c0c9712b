package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Types, traits and exclusion sets, through the interface and the client. */
class NarrowingTest {
    @TempDir
    Path folder;

    private static Http.Answer lines(String... parameters) {
        return Http.get(Demo.address(), "/api/v1/search/lines", parameters);
    }

    private static Client.Result run(String... arguments) {
        return Client.run(Demo.address(), arguments);
    }

    private static List<String> values(JsonNode answer, String facet) {
        List<String> values = new ArrayList<>();
        answer.path("facets")
                .path(facet)
                .forEach(share -> values.add(share.path("value").asString()));
        return values;
    }

    private static long hits(JsonNode answer) {
        return answer.path("counts").path("hits").asLong();
    }

    @Nested
    class TypesAndTraits {
        @Test
        void narrowAndAreCountedBesideTheHits() {
            JsonNode all = lines("q", "ticket", "counts", "exact").json();
            assertThat(values(all, "type")).contains("go", "vue", "json", "markdown");
            assertThat(values(all, "trait")).contains("test", "translation", "documentation");
            for (JsonNode share : all.path("facets").path("type")) {
                JsonNode narrowed = lines(
                                "q",
                                "ticket",
                                "counts",
                                "exact",
                                "type",
                                share.path("value").asString())
                        .json();
                assertThat(hits(narrowed))
                        .as(share.toString())
                        .isEqualTo(share.path("hits").asLong());
            }
            for (JsonNode share : all.path("facets").path("trait")) {
                String trait = share.path("value").asString();
                long with = hits(
                        lines("q", "ticket", "counts", "exact", "trait", trait).json());
                long without = hits(lines("q", "ticket", "counts", "exact", "notTrait", trait)
                        .json());
                assertThat(with).as(trait).isEqualTo(share.path("hits").asLong());
                assertThat(with + without).as(trait).isEqualTo(hits(all));
            }
            JsonNode expression = lines(
                            "q", "ticket type(go) not trait(test)", "reading", "expression", "counts", "exact")
                    .json();
            JsonNode options = lines("q", "ticket", "type", "go", "notTrait", "test", "counts", "exact")
                    .json();
            assertThat(hits(expression)).isEqualTo(hits(options)).isPositive();
            assertThat(options.path("query").path("expression").asString())
                    .isEqualTo("type(go) not trait(test) ticket");
        }

        @Test
        void thatThereAreNotAreRefusedWithTheNearest() {
            assertThat(lines("q", "a", "type", "jvaa").text("detail"))
                    .isEqualTo("There is no type jvaa. The nearest is java.");
            assertThat(lines("q", "a", "trait", "tests").text("detail"))
                    .isEqualTo("There is no trait tests. The nearest is test.");
            assertThat(lines("q", "a", "except", "transaltions").text("detail"))
                    .isEqualTo("There is no exclusion set transaltions. The nearest is translations.");
        }

        @Test
        void areListed() {
            assertThat(run("types").out())
                    .contains("java           *.java")
                    .contains("vendored       taken over from others");
        }

        @Test
        void areOverriddenByTheRepositoryAndFollowTheContent() throws IOException {
            GitFolder git = GitFolder.create(folder.resolve("own"))
                    .write(
                            ".gitattributes",
                            "*.tide oddbeacon-type=yaml\nlist/** oddbeacon-trait=generated,vendored\nlist/own.txt -oddbeacon-trait\n")
                    .write("deep/.gitattributes", "*.tide oddbeacon-type=toml\n")
                    .write("a.tide", "dunlin: 1\n")
                    .write("deep/b.tide", "dunlin = 1\n")
                    .write("list/x.txt", "dunlin\n")
                    .write("list/own.txt", "dunlin\n")
                    .write("refresh", "#!/usr/bin/env python3\n# dunlin\n")
                    .commit("one");
            try {
                assertThat(run("repos", "add", "own", git.path().toString(), "--wait")
                                .status())
                        .isZero();
                assertThat(run("lines", "--repo", "own", "--type", "yaml", "dunlin")
                                .lines())
                        .containsExactly("own/a.tide:1:1: dunlin: 1");
                assertThat(run("lines", "--repo", "own", "--type", "toml", "dunlin")
                                .lines())
                        .containsExactly("own/deep/b.tide:1:1: dunlin = 1");
                assertThat(run("lines", "--trait", "generated", "--trait", "vendored", "dunlin")
                                .lines())
                        .containsExactly("own/list/x.txt:1:1: dunlin");
                assertThat(run("files", "--repo", "own", "--type", "python").lines())
                        .containsExactly("own/refresh");
                git.write("refresh", "#!/bin/sh\n# dunlin\n").commit("two");
                assertThat(run("repos", "refresh", "own", "--wait").status()).isZero();
                assertThat(run("files", "--repo", "own", "--type", "shell").lines())
                        .containsExactly("own/refresh");
            } finally {
                run("repos", "remove", "own");
            }
        }
    }

    @Nested
    class AFile {
        @Test
        void thatIsMissingSaysWhichLimitKeepsItOut() {
            Client.Result out = run(
                    "lines",
                    "--except",
                    "translations",
                    "--type",
                    "json",
                    "--not-trait",
                    "translation",
                    "--about",
                    "passenger-app:src/translations/de/tickets.json",
                    "ticket");
            assertThat(out.status()).isEqualTo(1);
            assertThat(out.out())
                    .contains("passenger-app/src/translations/de/tickets.json on main is not among the results.")
                    .contains(
                            "FAILS   except(translations): line 2, src/translations/*, takes it out with the folder src/translations/de")
                    .contains("FAILS   not trait(translation): translation (in a folder translations)")
                    .contains("holds   type(json): its type is json")
                    .contains("holds   ticket: 1 line matches");
            Client.Result in =
                    run("lines", "--expression", "--about", "fare-gate/internal/ticket/ticket.go", "ticket type(go)");
            assertThat(in.status()).isZero();
            assertThat(in.out()).contains("is among the results.").contains("holds   type(go)");
        }

        @Test
        void thatDoesNotMatchShowsItsNearestLine() {
            Client.Result out = run(
                    "lines", "--about", "berth-planner:docs/mooring-buffer.md", "arrival of another at the same berth");
            assertThat(out.out())
                    .contains("FAILS   \"arrival of another at the same berth\": no line of it matches")
                    .contains("The nearest line is 3: Between the departure");
        }

        @Test
        void thatIsNotThereIsToldWithTheNearestPaths() {
            assertThat(run("lines", "--about", "berth-planner:mooring-buffer.md", "a")
                            .out())
                    .contains("is not in the index")
                    .contains("perhaps docs/mooring-buffer.md");
            assertThat(run("lines", "--about", "nowhere:a", "a").err()).contains("There is no repository nowhere.");
            Client.Result skipped = run("lines", "--about", "passenger-app:public/beacon.png", "a");
            assertThat(skipped.out())
                    .contains("FAILS   text is searched: its text is not searched: binary")
                    .contains("binary (it has no text)");
        }
    }

    @Nested
    class FilesAndFolders {
        private static List<String> paths(String... parameters) {
            List<String> paths = new ArrayList<>();
            Http.get(Demo.address(), "/api/v1/search/files", parameters)
                    .json()
                    .path("files")
                    .forEach(file -> paths.add(file.path("path").asString()));
            return paths;
        }

        @Test
        void areFoundInEachReading() {
            assertThat(paths("q", "mooringbuffer").getFirst()).endsWith("/MooringBuffer.java");
            assertThat(paths("q", "mbj").getFirst()).endsWith("/MooringBuffer.java");
            assertThat(paths("q", "**/terminals/*.yaml", "reading", "glob"))
                    .isNotEmpty()
                    .allMatch(path -> path.matches("(.*/)?terminals/[^/]+\\.yaml"));
            assertThat(paths("q", "_test\\.go$", "reading", "regex"))
                    .isNotEmpty()
                    .allMatch(path -> path.endsWith("_test.go"));
            assertThat(paths("q", "ticket type(go) not trait(test)", "reading", "expression"))
                    .containsExactly("internal/ticket/ticket.go");
            assertThat(paths("q", "terminal", "kind", "folder")).contains("terminals");
            assertThat(Http.get(Demo.address(), "/api/v1/search/files", "q", "(", "reading", "regex")
                            .status())
                    .isEqualTo(400);
            assertThat(Http.get(Demo.address(), "/api/v1/search/files", "size", "big")
                            .text("detail"))
                    .contains("it must be +, for at least");
        }

        @Test
        void areListedLongAndHandedOnSafely() {
            List<String> all =
                    List.of(run("files", "--null", "--limit", "all").out().split("\0"));
            assertThat(all).hasSizeGreaterThan(250).doesNotHaveDuplicates();
            assertThat(run("files", "--repo", "fare-gate", "--glob", "ticket.go", "--format", "csv")
                            .lines()
                            .getLast())
                    .matches("fare-gate,main,[0-9a-f]{40},internal/ticket/ticket.go,file,go,,[0-9]+,[0-9]+");
            assertThat(run("lines", "--repo", "fare-gate", "--under", "ticket.go", "--format", "csv", "package ticket")
                            .lines()
                            .getLast())
                    .matches("fare-gate,main,[0-9a-f]{40},internal/ticket/ticket.go,2,1,package ticket");
            Client.Result large = run("files", "--size", "+2k", "--order", "size", "--long", "--limit", "3");
            assertThat(large.lines())
                    .hasSize(3)
                    .allMatch(line -> line.matches(" *[0-9]+ +[0-9]+  \\S+ +[0-9-]{10}  .+"));
            long first = Long.parseLong(large.lines().getFirst().strip().split(" ")[0]);
            assertThat(first)
                    .isGreaterThanOrEqualTo(
                            Long.parseLong(large.lines().getLast().strip().split(" ")[0]))
                    .isGreaterThanOrEqualTo(2_000);
        }
    }

    @Nested
    class ExclusionSets {
        @AfterEach
        void remove() {
            Http.delete(Demo.address(), "/api/v1/exclusion-sets/ours");
            Http.delete(Demo.address(), "/api/v1/exclusion-sets/theirs");
        }

        @Test
        void takeFilesOutOfASearchWhichSaysSo() {
            long all = hits(lines("q", "ticket", "counts", "exact").json());
            long left = hits(lines("q", "ticket", "counts", "exact", "except", "translations")
                    .json());
            JsonNode out = Http.get(
                            Demo.address(), "/api/v1/search/lines/left-out", "q", "ticket", "except", "translations")
                    .json()
                    .path("sets");
            assertThat(out.size()).isEqualTo(1);
            assertThat(hits(lines("q", "ticket except(translations)", "reading", "expression", "counts", "exact")
                            .json()))
                    .isEqualTo(left);
            assertThat(left + out.get(0).path("hits").asLong()).isEqualTo(all);
            Client.Result client = run("lines", "--except", "translations", "--only", "counts", "ticket");
            assertThat(client.err())
                    .contains(out.get(0).path("hits").asLong()
                            + " hits in 14 files left out by the exclusion set translations.");
            assertThat(run("files", "--except", "translations", "--under", "src/translations")
                            .lines())
                    .hasSize(3)
                    .allMatch(path -> path.contains("/en/"));
        }

        @Test
        void applyByDefaultAndAreLiftedSingly() {
            assertThat(run("sets", "save", "ours", "--pattern", "*.go", "--default")
                            .status())
                    .isZero();
            assertThat(run("lines", "--under", "*.go", "ticket").status()).isEqualTo(1);
            assertThat(run("lines", "--under", "*.go", "ticket").err())
                    .contains("left out by the exclusion set ours; --lift ours shows them.");
            assertThat(run("lines", "--under", "*.go", "--lift", "ours", "ticket")
                            .status())
                    .isZero();
            assertThat(run("sets", "save", "ours", "--no-default").status()).isZero();
            assertThat(run("sets", "show", "ours").out()).isEqualTo("*.go\n");
            assertThat(run("lines", "--under", "*.go", "ticket").status()).isZero();
        }

        @Test
        void tellWhatEachPatternTakesOutAndWarn() {
            JsonNode preview = Http.post(
                            Demo.address(),
                            "/api/v1/exclusion-sets/preview?repo=fare-gate&repo=passenger-app",
                            "{\"patterns\":\"ticket*\\n*.vue\\nnowhere/\\n[ab\\nApp.vue\\n*.vue\\n!src/App.vue\"}")
                    .json();
            assertThat(preview.path("mistakes").size()).isEqualTo(1);
            JsonNode first = preview.path("patterns").get(0);
            assertThat(first.path("folders").asInt()).isEqualTo(1);
            assertThat(first.path("files").asInt())
                    .isGreaterThan(first.path("filesInFolders").asInt());
            assertThat(first.path("warning").asString())
                    .contains("single source file")
                    .contains("ticket*/");
            assertThat(preview.path("patterns").get(1).path("warning").asString())
                    .isEqualTo("It decides nothing: what it matches is decided by line 6, *.vue.");
            assertThat(preview.path("patterns").get(2).path("warning").asString())
                    .isEqualTo("It matches nothing in this scope.");
            assertThat(preview.path("patterns").get(3).path("warning").asString())
                    .startsWith("It decides nothing: what it matches is decided by line 7");
            assertThat(preview.path("patterns").get(5).path("bringsBack").asBoolean())
                    .isTrue();
            int out = 0;
            for (JsonNode pattern : preview.path("patterns")) {
                out += pattern.path("bringsBack").asBoolean()
                        ? 0
                        : pattern.path("files").asInt();
            }
            assertThat(preview.path("left").asInt() + out)
                    .isEqualTo(preview.path("files").asInt());
            assertThat(run("sets", "preview", "--set", "translations", "--repo", "passenger-app")
                            .out())
                    .contains("are left.")
                    .contains("src/translations/*  takes out 21 files in 7 whole folders");
        }

        @Test
        void areNotOverwrittenByWhoHasNotSeenThem() {
            assertThat(Http.put(Demo.address(), "/api/v1/exclusion-sets/ours", "{\"patterns\":\"a\"}")
                            .status())
                    .isEqualTo(200);
            JsonNode seen =
                    Http.get(Demo.address(), "/api/v1/exclusion-sets/ours").json();
            String change =
                    "{\"patterns\":\"b\",\"version\":" + seen.path("version").asLong() + "}";
            assertThat(Http.put(Demo.address(), "/api/v1/exclusion-sets/ours", change)
                            .status())
                    .isEqualTo(200);
            Http.Answer second =
                    Http.put(Demo.address(), "/api/v1/exclusion-sets/ours", change.replace("\"b\"", "\"c\""));
            assertThat(second.status()).isEqualTo(409);
            assertThat(second.text("detail")).startsWith("Somebody else changed the exclusion set ours meanwhile.");
            assertThat(Http.put(Demo.address(), "/api/v1/exclusion-sets/ours", "{\"patterns\":\"d\"}")
                            .status())
                    .isEqualTo(409);
            assertThat(Http.get(Demo.address(), "/api/v1/exclusion-sets/ours").text("patterns"))
                    .isEqualTo("b");
            assertThat(Http.delete(
                                    Demo.address(),
                                    "/api/v1/exclusion-sets/ours?version="
                                            + seen.path("version").asLong())
                            .status())
                    .isEqualTo(409);
            assertThat(Http.delete(Demo.address(), "/api/v1/exclusion-sets/ours")
                            .status())
                    .isEqualTo(204);
            assertThat(lines("q", "a", "except", "ours").text("detail")).startsWith("There is no exclusion set ours.");
        }

        @Test
        void areExportedAndImportedAsAFile() throws IOException {
            Path file = folder.resolve("sets.yaml");
            Files.writeString(
                    file,
                    "exclusion-sets:\n  ours:\n    description: Made by programs\n    by-default: false\n    patterns: |\n      # remark\n      gen/\n      *.pb.go\n  theirs:\n    patterns: vendor/\n");
            assertThat(run("sets", "import", file.toString()).lines()).containsExactly("ours", "theirs");
            assertThat(run("sets", "export", "ours").out())
                    .isEqualTo(
                            "exclusion-sets:\n  ours:\n    description: Made by programs\n    by-default: false\n    patterns: |\n      # remark\n      gen/\n      *.pb.go\n");
            Files.writeString(file, "exclusion-sets:\n  theirs:\n    patterns: other/\n  ours:\n    patterns: '[a'\n");
            assertThat(run("sets", "import", file.toString()).err())
                    .contains("There are exclusion sets of these names already: theirs, ours.");
            assertThat(run("sets", "import", file.toString(), "--replace").err())
                    .contains("Line 1: This [ is not closed.");
            assertThat(run("sets", "show", "theirs").out())
                    .as("all of a file, or nothing")
                    .isEqualTo("vendor/\n");
            Files.writeString(file, "exclusion-sets:\n  theirs:\n    paterns: other/\n");
            assertThat(run("sets", "import", file.toString()).err()).contains("Line 3: \"paterns\" is not known.");
            Files.writeString(file, "exclusion-sets:\n  theirs:\n   - a\n  b: [\n");
            Client.Result wrong = run("sets", "import", file.toString());
            assertThat(wrong.status()).isEqualTo(2);
            assertThat(wrong.err()).contains("The file cannot be read. Line ").contains("Nothing was changed.");
        }

        @Test
        void mayHaveThousandsOfPatterns() {
            StringBuilder patterns = new StringBuilder();
            for (int i = 0; i < 10_000; i++) {
                patterns.append("folder").append(i).append(i % 2 == 0 ? "/sub\\n" : "*\\n");
            }
            Http.Answer preview = Http.post(
                    Demo.address(), "/api/v1/exclusion-sets/preview", "{\"patterns\":\"" + patterns + "*.go\"}");
            assertThat(preview.json().path("patterns").size()).isEqualTo(10_001);
            assertThat(preview.json().path("left").asInt())
                    .isLessThan(preview.json().path("files").asInt());
            assertThat(Http.post(
                                    Demo.address(),
                                    "/api/v1/exclusion-sets/preview",
                                    "{\"patterns\":\"" + patterns + patterns + patterns + "\"}")
                            .json()
                            .path("mistakes")
                            .get(0)
                            .path("message")
                            .asString())
                    .startsWith("There are 30000 patterns");
        }
    }
}
