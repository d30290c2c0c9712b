package dev.oddbeacon.client;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.api.CallsAnswer;
import dev.oddbeacon.api.CounterpartsAnswer;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LogAnswer;
import dev.oddbeacon.api.Outline;
import dev.oddbeacon.api.PlacesAnswer;
import dev.oddbeacon.api.Problem;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.RevisionsAnswer;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.api.SecondLooks;
import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.api.TranslationsAnswer;
import dev.oddbeacon.api.TypesAndTraits;
import dev.oddbeacon.api.Watch;
import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.client.service.Service;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Every command as a process of its own, against a stand-in for the service. */
class CommandsTest {
    private StandIn service;

    @BeforeEach
    void start() throws IOException {
        service = new StandIn();
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private ClientRun run(String... arguments) {
        return ClientRun.of(service.url(), arguments);
    }

    @Nested
    class Repositories {
        private RepositoryInfo info(String name) {
            return new RepositoryInfo(
                    name, name, "/srv/git/" + name, List.of(), "ready", null, null, List.of(), null, null, null);
        }

        @BeforeEach
        void answer() {
            service.answers("repositories", request -> {
                int from = request.parameter("after").isEmpty()
                        ? 0
                        : Integer.parseInt(request.parameter("after").substring(1)) + 1;
                return IntStream.range(from, 2_500)
                        .limit(Integer.parseInt(request.parameter("limit")))
                        .mapToObj(i -> info(String.format(Locale.ROOT, "r%04d", i)))
                        .toList();
            });
        }

        @Test
        void areListedPageByPage() {
            ClientRun run = run("repos", "list", "r*", "--state", "ready", "--format", "jsonl");
            assertThat(run.status()).isZero();
            assertThat(run.out().lines()).hasSize(2_500);
            assertThat(service.requests())
                    .extracting(request -> request.parameter("after"))
                    .containsExactly("", "r0999", "r1999");
            assertThat(service.requests()).allSatisfy(request -> {
                assertThat(request.parameter("match")).isEqualTo("r*");
                assertThat(request.parameter("state")).isEqualTo("ready");
            });
        }
    }

    @Nested
    class Paging {
        private static final int ALL = 2_300;

        @BeforeEach
        void answer() {
            service.answers("search/lines", request -> {
                int from = request.parameter("cursor").isEmpty() ? 0 : Integer.parseInt(request.parameter("cursor"));
                int count = Math.min(Integer.parseInt(request.parameter("limit")), ALL - from);
                return Answers.lines(
                        Answers.WHOLE, from, count, ALL, from + count < ALL ? String.valueOf(from + count) : null);
            });
        }

        private List<String> asked(String parameter) {
            return service.requests().stream()
                    .map(request -> request.parameter(parameter))
                    .toList();
        }

        @Test
        void goesOnUntilAllIsPrinted() {
            ClientRun run = run("lines", "tide", "--limit", "all");
            assertThat(run.status()).isZero();
            assertThat(run.err()).isEmpty();
            assertThat(run.out().lines().toList())
                    .hasSize(ALL)
                    .startsWith("tidewatch/gauge/0.py:0:5: low tide, \"spring\"")
                    .endsWith("tidewatch/gauge/2299.py:2299:5: low tide, \"spring\"");
            assertThat(asked("cursor")).containsExactly("", "1000", "2000");
        }

        @Test
        void endsWithAsManyAsAreWantedAndSaysSo() {
            ClientRun run = run("lines", "tide", "--limit", "1500");
            assertThat(run.out().lines().toList()).hasSize(1_500);
            assertThat(asked("limit")).containsExactly("1000", "500");
            assertThat(run.err())
                    .isEqualTo(
                            "oddbeacon: the first 1500 of 2,300 hits in 2,300 files of 1 repository; --limit all prints every one.\n");
        }

        @Test
        void theHeaderOfCsvStandsOnce() {
            ClientRun run = run("lines", "tide", "--limit", "1001", "--format", "csv");
            assertThat(run.out().lines().toList())
                    .hasSize(1_002)
                    .startsWith(
                            "repository,branch,commit,path,line,column,text",
                            "tidewatch,main," + Answers.COMMIT + ",gauge/0.py,0,5,\"low tide, \"\"spring\"\"\"");
        }
    }

    @Nested
    class EveryListingCommand {
        /** The command, the first line of its CSV, and the first record. */
        static Stream<Arguments> commands() {
            String commit = Answers.COMMIT;
            return Stream.of(
                    Arguments.of(
                            List.of("lines", "tide"),
                            "repository,branch,commit,path,line,column,text",
                            "tidewatch,main," + commit + ",gauge/3.py,3,5,\"low tide, \"\"spring\"\"\""),
                    Arguments.of(
                            List.of("files"),
                            "repository,branch,commit,path,kind,type,traits,bytes,lines",
                            "tidewatch,main," + commit + ",\"gauge/a,b.py\",file,python,test,1234,56"),
                    Arguments.of(
                            List.of("symbols", "tideAt"),
                            "repository,branch,commit,path,line,column,role,kind,container,name,text,certainty",
                            "tidewatch,main," + commit + ",gauge/a.py,7,5,use,,Gauge,tideAt,now = tideAt(x),"),
                    Arguments.of(
                            List.of("commits", "surge"),
                            "repository,commit,authored,author,address,files,added,removed,summary",
                            "tidewatch," + commit
                                    + ",2026-03-01T08:00+01:00,\"Ada, of Quillhaven\",ada@quillhaven.example,2,7,1,Raise the surge threshold"),
                    Arguments.of(
                            List.of("log", "tidewatch:gauge/a.py"),
                            "repository,commit,authored,author,change,path,from,added,removed,summary",
                            "tidewatch," + commit
                                    + ",2026-03-01T08:00+01:00,\"Ada, of Quillhaven\",renamed,gauge/a.py,a.py,3,1,Raise the surge threshold"),
                    Arguments.of(
                            List.of("blame", "tidewatch:gauge/a.py"),
                            "fromLine,toLine,commit,authored,author,path,line,summary",
                            "1,2," + commit
                                    + ",2026-03-01T08:00+01:00,\"Ada, of Quillhaven\",gauge/a.py,1,Raise the surge threshold"),
                    Arguments.of(
                            List.of("outline", "tidewatch:gauge/a.py"),
                            "path,line,column,end,kind,container,name,signature",
                            "gauge/a.py,4,7,9,function,,tideAt,def tideAt(x)"),
                    Arguments.of(
                            List.of("counterpart", "tidewatch:gauge/a.py"),
                            "repository,path,how",
                            "tidewatch,gauge/test_a.py,name"),
                    Arguments.of(
                            List.of("translations", "tidewatch:de/gauge.json:2"),
                            "language,repository,path,line,text",
                            "de,tidewatch,de/gauge.json,2,\"\"\"depth\"\": \"\"Tiefe\"\"\""),
                    Arguments.of(
                            List.of("calls", "tideAt"),
                            "depth,repository,path,line,column,kind,container,name,certainty,calls",
                            "1,tidewatch,gauge/b.py,2,5,function,Gauge,read,likely,1"),
                    Arguments.of(
                            List.of("places"),
                            "repository,branch,commit,path,line,column,named,text",
                            "tidewatch,main," + commit + ",gauge/a.py,4,2,a.py,a.py:4:2: no tide"),
                    Arguments.of(
                            List.of("types"),
                            "kind,name,files,interpreters,meaning",
                            "type,python,*.py *.pyi,python3,Python"),
                    Arguments.of(
                            List.of("repos", "revisions", "tidewatch", "--not-indexed"),
                            "repository,name,kind,commit,committed,author,summary,indexed",
                            "tidewatch,winter,branch," + commit
                                    + ",2026-03-01T07:00:00Z,Ada,Raise the surge threshold,false"),
                    Arguments.of(
                            List.of("repos", "list"),
                            "name,state,branch,commit,indexed,files,lines,bytes,skipped,labels,title,checked,behind",
                            "tidewatch,ready,main," + commit
                                    + ",2026-03-02T07:00:00Z,12,340,5600,1,port tide,Tide gauges,2026-03-02T08:00:00Z,3"),
                    Arguments.of(
                            List.of("sets", "list"),
                            "name,patterns,byDefault,description,own",
                            "generated,2,true,\"What tools write, again\",false"),
                    Arguments.of(
                            List.of("searches", "list"),
                            "name,of,subject,description,problem",
                            "old-address,me,lines,Who asks it,There is no repository lost."),
                    Arguments.of(
                            List.of("worklists", "list"),
                            "search,of,open,claimed,done,stays,gone,problem",
                            "old-address,me,5,2,1,3,4,"),
                    Arguments.of(
                            List.of("worklists", "show", "old-address"),
                            "item,state,owners,claimedBy,repository,path,line,text,why",
                            "7,stays,'@gauges,edda,tidewatch,a.py,3,\" tide\",Of the old signs"),
                    Arguments.of(List.of("worklists", "left", "old-address"), "day,open", "2026-03-01,5"),
                    Arguments.of(
                            List.of("watches", "list"),
                            "search,of,last,gathered,webhook,mail,problem",
                            "old-address,me,2026-03-01T07:00:00Z,day,https://chat.quillhaven.example/h,edda@quillhaven.example,\"Not sent, yet\""),
                    Arguments.of(
                            List.of("watches", "notices", "old-address"),
                            "happened,repository,came,went",
                            "2026-03-01T07:00:00Z,tidewatch,1,0"),
                    Arguments.of(
                            List.of("watches", "deliveries", "old-address"),
                            "id,channel,made,state,attempts,answer",
                            "4,mail,2026-03-01T07:00:00Z,waiting,2,Answered with 500"));
        }

        @BeforeEach
        void answer() {
            service.answers("search/lines", _ -> Answers.lines(Answers.WHOLE, 3, 1, 1, null))
                    .answers("search/files", _ -> Answers.files())
                    .answers("search/symbols", _ -> Answers.symbols())
                    .answers("search/commits", _ -> Answers.commits())
                    .answers(
                            "repositories/tidewatch/log",
                            _ -> new LogAnswer(
                                    "tidewatch",
                                    "gauge/a.py",
                                    "main",
                                    List.of(new LogAnswer.Entry(
                                            Answers.commit(), "gauge/a.py", "a.py", "renamed", 3, 1)),
                                    null))
                    .answers(
                            "repositories/tidewatch/blame",
                            _ -> new BlameAnswer(
                                    "tidewatch",
                                    "gauge/a.py",
                                    Answers.COMMIT,
                                    List.of(new BlameAnswer.Origin(
                                            1,
                                            2,
                                            Answers.COMMIT,
                                            Answers.ADA,
                                            Answers.commit().authored(),
                                            "Raise the surge threshold",
                                            "gauge/a.py",
                                            1,
                                            null))))
                    .answers("repositories/tidewatch/file", _ -> Map.of("text", "low\ntide\n"))
                    .answers(
                            "repositories/tidewatch/revisions",
                            _ -> new RevisionsAnswer(
                                    "tidewatch",
                                    2,
                                    Stream.of("main", "winter")
                                            .map(name -> new RevisionsAnswer.Revision(
                                                    name,
                                                    "branch",
                                                    Answers.COMMIT,
                                                    Instant.parse("2026-03-01T07:00:00Z"),
                                                    "Ada",
                                                    "Raise the surge threshold",
                                                    name.equals("main")))
                                            .toList()))
                    .answers(
                            "repositories/tidewatch/counterparts",
                            _ -> new CounterpartsAnswer(false, List.of("gauge/test_a.py"), List.of()))
                    .answers(
                            "repositories/tidewatch/translations",
                            _ -> new TranslationsAnswer(
                                    "tidewatch",
                                    "main",
                                    "c0ffee",
                                    "depth",
                                    List.of(new TranslationsAnswer.Language(
                                            "de", "de/gauge.json", 2, "\"depth\": \"Tiefe\"")),
                                    "depth",
                                    List.of(),
                                    0,
                                    true))
                    .answers(
                            "repositories/tidewatch/outline",
                            _ -> new Outline(
                                    "tidewatch",
                                    "main",
                                    Answers.COMMIT,
                                    "gauge/a.py",
                                    "python",
                                    "python",
                                    1,
                                    List.of(new Outline.Symbol(
                                            "tideAt", "function", "", 0, 4, 9, 7, "def tideAt(x)", null, null))))
                    .answers(
                            "calls",
                            asked -> new CallsAnswer(
                                    List.of(),
                                    "callers",
                                    List.of(new CallsAnswer.End(
                                            new SymbolAt.Target(
                                                    "read",
                                                    "function",
                                                    "Gauge",
                                                    "tidewatch",
                                                    "main",
                                                    "gauge/b.py",
                                                    2,
                                                    5,
                                                    "def read()",
                                                    ""),
                                            "tidewatch",
                                            "main",
                                            "gauge/b.py",
                                            null,
                                            "likely",
                                            List.of(new CallsAnswer.Site(3, 9, "tideAt(x)", "likely")))),
                                    2,
                                    true))
                    .answers(
                            "places",
                            _ -> new PlacesAnswer(
                                    List.of(new PlacesAnswer.Place(
                                            1,
                                            0,
                                            8,
                                            "a.py:4:2: no tide",
                                            "a.py",
                                            4,
                                            2,
                                            List.of(new PlacesAnswer.File(
                                                    "tidewatch", "main", Answers.COMMIT, "gauge/a.py", 90)),
                                            true)),
                                    1,
                                    false,
                                    1))
                    .answers(
                            "types",
                            _ -> new TypesAndTraits(
                                    List.of(new TypesAndTraits.Type(
                                            "python", "Python", List.of("*.py", "*.pyi"), List.of("python3"))),
                                    List.of(new TypesAndTraits.Trait("test", "tests of code"))))
                    .answers(
                            "repositories",
                            _ -> List.of(new RepositoryInfo(
                                    "tidewatch",
                                    "Tide gauges",
                                    "/srv/git/tidewatch.git",
                                    List.of("port", "tide"),
                                    "ready",
                                    null,
                                    null,
                                    List.of(new RepositoryInfo.Branch(
                                            "main",
                                            Answers.COMMIT,
                                            Instant.parse("2026-03-01T07:00:00Z"),
                                            Instant.parse("2026-03-02T07:00:00Z"),
                                            12,
                                            340,
                                            5_600,
                                            1,
                                            0)),
                                    null,
                                    new RepositoryInfo.Following(
                                            Instant.parse("2026-03-02T08:00:00Z"),
                                            Instant.parse("2026-03-02T06:00:00Z"),
                                            true,
                                            3,
                                            null),
                                    new RepositoryInfo.Disk(90_000, 4_000))))
                    .answers(
                            "exclusion-sets",
                            _ -> List.of(new ExclusionSetInfo(
                                    "generated",
                                    false,
                                    null,
                                    "What tools write, again",
                                    true,
                                    "# ours\ngen/\n\n*.pb.go\n",
                                    1,
                                    Instant.parse("2026-03-01T07:00:00Z"))))
                    .answers(
                            "saved-searches",
                            _ -> List.of(new SavedSearch(
                                    "old-address",
                                    "me",
                                    "Who asks it",
                                    "lines",
                                    Map.of("q", List.of("tide")),
                                    null,
                                    false,
                                    null,
                                    "There is no repository lost.",
                                    1,
                                    Instant.parse("2026-03-01T07:00:00Z"),
                                    "ada")))
                    .answers("saved-searches/file/problems", _ -> List.of())
                    .answers(
                            "worklists",
                            _ -> List.of(new Worklist(
                                    "old-address",
                                    "me",
                                    5,
                                    2,
                                    1,
                                    3,
                                    4,
                                    Instant.parse("2026-03-01T07:00:00Z"),
                                    "ada",
                                    null)))
                    .answers(
                            "worklists/old-address/items",
                            _ -> new Worklist.Items(
                                    List.of(new Worklist.Item(
                                            7,
                                            new Result("tidewatch", "main", Answers.COMMIT, "a.py", 3, null, " tide"),
                                            "stays",
                                            List.of("@gauges"),
                                            "edda",
                                            "Of the old signs",
                                            Instant.parse("2026-03-01T07:00:00Z"),
                                            null,
                                            2)),
                                    1,
                                    Instant.parse("2026-03-01T07:00:00Z")))
                    .answers(
                            "worklists/old-address/left",
                            _ -> new Worklist.Left(
                                    List.of(new Worklist.Day(LocalDate.parse("2026-03-01"), 5, List.of(), List.of())),
                                    LocalDate.parse("2026-04-01")))
                    .answers(
                            "watches",
                            _ -> List.of(new Watch(
                                    "old-address",
                                    "me",
                                    true,
                                    "day",
                                    null,
                                    "https://chat.quillhaven.example/h",
                                    "edda@quillhaven.example",
                                    null,
                                    null,
                                    "Not sent, yet",
                                    Instant.parse("2026-03-01T07:00:00Z"))))
                    .answers(
                            "watches/old-address/notices",
                            _ -> new Watch.Notices(
                                    List.of(new Watch.Notice(
                                            9,
                                            Instant.parse("2026-03-01T07:00:00Z"),
                                            "tidewatch",
                                            1,
                                            List.of(new Result(
                                                    "tidewatch", "main", Answers.COMMIT, "a.py", 3, null, " tide")),
                                            0,
                                            List.of())),
                                    null))
                    .answers(
                            "watches/old-address/deliveries",
                            _ -> List.of(new Watch.Delivery(
                                    4,
                                    "mail",
                                    "msg_4",
                                    Instant.parse("2026-03-01T07:00:00Z"),
                                    1,
                                    2,
                                    "waiting",
                                    "Answered with 500",
                                    null)));
        }

        private ClientRun run(List<String> command, String format) {
            List<String> arguments = new ArrayList<>(command);
            arguments.addAll(List.of("--format", format));
            return CommandsTest.this.run(arguments.toArray(String[]::new));
        }

        @ParameterizedTest
        @MethodSource("commands")
        void writesRecords(List<String> command, String header, String first) {
            ClientRun run = run(command, "csv");
            assertThat(run.status()).isZero();
            assertThat(run.out().lines().toList()).startsWith(header, first);
        }

        @ParameterizedTest
        @MethodSource("commands")
        void writesJsonObjects(List<String> command) {
            ClientRun run = run(command, "jsonl");
            assertThat(run.status()).isZero();
            assertThat(run.out().lines().toList()).isNotEmpty().allSatisfy(line -> {
                JsonNode object = Service.JSON.readTree(line);
                assertThat(object.isObject()).isTrue();
                assertThat(object.size()).isGreaterThan(2);
            });
        }

        @ParameterizedTest
        @MethodSource("commands")
        void writesTextThatNoTerminalObeys(List<String> command) {
            ClientRun run = run(command, "text");
            assertThat(run.status()).isZero();
            assertThat(run.out()).isNotBlank().doesNotContain("\u001b");
        }
    }

    @Nested
    class TheScope {
        @ParameterizedTest
        @ValueSource(strings = {"lines", "files", "symbols", "commits"})
        void reachesTheServiceWhole(String command, @TempDir Path folder) throws IOException {
            service.answers("search/lines", _ -> Answers.lines(Answers.WHOLE, 3, 1, 1, null))
                    .answers("search/files", _ -> Answers.files())
                    .answers("search/symbols", _ -> Answers.symbols())
                    .answers("search/commits", _ -> Answers.commits());
            Path list = Files.writeString(folder.resolve("list"), "tidewatch/a b.py\ntidewatch/c.py\n");
            List<String> arguments = new ArrayList<>(List.of(command, "tide"));
            for (ScopePart part : ScopePart.values()) {
                boolean isList = part == ScopePart.FILE;
                arguments.addAll(List.of(
                        part.option(),
                        isList ? list.toString() : part + " 1",
                        part.option(),
                        isList ? list.toString() : part + "&2"));
            }
            assertThat(run(arguments.toArray(String[]::new)).status()).isZero();
            Map<String, List<String>> asked = service.requests().getFirst().parameters();
            for (ScopePart part : ScopePart.values()) {
                assertThat(asked.get(part.parameter()))
                        .as(part.name())
                        .isEqualTo(
                                part != ScopePart.FILE
                                        ? List.of(part + " 1", part + "&2")
                                        : List.of(
                                                "tidewatch/a b.py",
                                                "tidewatch/c.py",
                                                "tidewatch/a b.py",
                                                "tidewatch/c.py"));
            }
        }

        @Test
        void isToldInHelp() {
            ClientRun run = run("symbols", "--help");
            assertThat(run.status()).isZero();
            for (ScopePart part : ScopePart.values()) {
                assertThat(run.out()).contains(part.option() + "=" + part.placeholder());
            }
        }
    }

    @Nested
    class WhatGoesWrong {
        @Test
        void nothingFoundIsAStatusOfItsOwn() {
            service.answers("search/lines", _ -> Answers.lines(Answers.WHOLE, 0, 0, 0, null))
                    .answers("search/lines/second-looks", _ -> new SecondLooks(List.of(), 1));
            ClientRun run = run("lines", "tide");
            assertThat(run.status()).isEqualTo(1);
            assertThat(run.out()).isEmpty();
        }

        @Test
        void aMistakeIsMarkedWhereItStands() {
            service.answers("search/lines", _ -> {
                throw new StandIn.Refusal(
                        400, "wrong", new Problem.Mistake("A closing parenthesis is missing.", 5, 1, null, true));
            });
            ClientRun run = run("lines", "--expression", "near(");
            assertThat(run.status()).isEqualTo(2);
            assertThat(run.err()).isEqualTo("oddbeacon: A closing parenthesis is missing.\n  near(\n       ^\n");
        }

        @Test
        void aFailureOfTheServiceIsNotOurs() {
            service.answers("search/commits", _ -> {
                throw new StandIn.Refusal(500, "The service failed.");
            });
            ClientRun run = run("commits", "tide");
            assertThat(run.status()).isEqualTo(3);
            assertThat(run.err()).contains("The service failed.");
        }

        @Test
        void aServiceThatIsNotThereIsToldWithWhatToDo() {
            String gone = service.url();
            service.close();
            ClientRun run = ClientRun.of(gone, "files");
            assertThat(run.status()).isEqualTo(3);
            assertThat(run.err())
                    .isEqualTo(
                            "oddbeacon: No service answers at " + gone
                                    + ". Start it with ./oddbeacon serve or ./oddbeacon demo, or say where it is with --url.\n");
        }

        @ParameterizedTest
        @ValueSource(
                strings = {
                    "files --plain --glob a",
                    "lines --plain --regex a",
                    "lines --limit none a",
                    "lines --format xml a",
                    "lines --format csv --only counts a",
                    "log",
                    "show a"
                })
        void wrongUsageAsksNothing(String command) {
            ClientRun run = run(command.split(" "));
            assertThat(run.status()).isEqualTo(2);
            assertThat(run.out()).isEmpty();
            assertThat(run.err()).startsWith("oddbeacon: ").endsWith("\n");
            assertThat(service.requests()).isEmpty();
        }

        @Test
        void whatIsMissingIsToldBesideTheResults() {
            service.answers(
                            "search/lines",
                            _ -> Answers.lines(new LinesAnswer.IndexState(false, 5, 2, 0, List.of()), 1, 1, 1, null))
                    .answers("search/commits", _ -> Answers.commits());
            ClientRun lines = run("lines", "tide");
            assertThat(lines.status()).isZero();
            assertThat(lines.out()).isEqualTo("tidewatch/gauge/1.py:1:5: low tide, \"spring\"\n");
            assertThat(lines.err())
                    .isEqualTo(
                            "oddbeacon: not complete: 2 of 5 repositories in the scope cannot be searched yet, or not as they are now; oddbeacon repos list shows them.\n");
            assertThat(run("commits", "surge").err().lines().toList())
                    .containsExactly(
                            "oddbeacon: not complete: the past of 1 of 5 repositories is not read to its end.",
                            "oddbeacon: the past is cut at 2 commits whose parents are not there.");
        }
    }

    @Test
    void namesWithZeroBytesAreAsTheyAre() {
        service.answers("search/files", _ -> Answers.files());
        assertThat(run("files", "--null").out()).isEqualTo("tidewatch/gauge/a,b.py\0tidewatch/gauge/\u001b[31m.py\0");
    }

    @Test
    void onATerminalHitsStandUnderTheirFileAndAreCounted() {
        service.answers("search/lines", _ -> Answers.lines(Answers.WHOLE, 3, 1, 1, null));
        ClientRun run = ClientRun.onTerminal(service.url(), "lines", "tide");
        assertThat(run.out())
                .isEqualTo(
                        "tidewatch/gauge/3.py   1 hit on main\n      3 \u2502 low tide, \"spring\"\n\n1 hit in 1 file of 1 repository.\n");
        assertThat(service.requests().getFirst().parameter("context")).isEqualTo("2");
    }

    @Test
    void aLongScopeIsSentAsAForm() {
        service.answers("search/lines", _ -> Answers.lines(Answers.WHOLE, 3, 1, 1, null));
        List<String> arguments = new ArrayList<>(List.of("lines", "tide"));
        for (int i = 0; i < 900; i++) {
            arguments.addAll(List.of("--under", "/services/gauge-" + i));
        }
        assertThat(run(arguments.toArray(String[]::new)).status()).isZero();
        StandIn.Request request = service.requests().getFirst();
        assertThat(request.method()).isEqualTo("POST");
        assertThat(request.parameters().get("under")).hasSize(900).endsWith("/services/gauge-899");
    }
}
