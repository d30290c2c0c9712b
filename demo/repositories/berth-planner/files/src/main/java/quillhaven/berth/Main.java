package quillhaven.berth;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import quillhaven.berth.fleet.Fleet;
import quillhaven.berth.io.PlanWriter;
import quillhaven.berth.io.TimetableReader;
import quillhaven.berth.plan.BerthPlanner;
import quillhaven.berth.plan.Plan;
import quillhaven.berth.rule.RuleBook;
import quillhaven.berth.tide.TidewatchClient;

/** plan --day DATE */
public final class Main {
    private static final URI TIDEWATCH = URI.create("https://tidewatch.quillhaven.example");

    private Main() {}

    public static void main(String[] arguments) throws IOException {
        LocalDate day = arguments.length > 2 ? LocalDate.parse(arguments[2]) : LocalDate.now();
        Path export = Path.of("timetable-" + day + ".csv");
        try (BufferedReader in = Files.newBufferedReader(export)) {
            BerthPlanner planner = new BerthPlanner(Fleet.berths(), RuleBook.inForce(new TidewatchClient(TIDEWATCH), Fleet.forecastWind(day)));
            Plan plan = planner.plan(new TimetableReader(Fleet.vessels()).read(day, in));
            new PlanWriter().write(plan, new PrintWriter(System.out, true));
            System.exit(plan.isComplete() ? 0 : 1);
        }
    }
}
