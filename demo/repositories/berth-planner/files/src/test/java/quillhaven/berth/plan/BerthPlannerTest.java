package quillhaven.berth.plan;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Berth;
import quillhaven.berth.model.Call;
import quillhaven.berth.model.Timetable;
import quillhaven.berth.model.Vessel;
import quillhaven.berth.rule.RuleBook;

class BerthPlannerTest {
    private final Vessel dunlin = new Vessel("Dunlin", 24.5, 1.6, 0.4, 690);
    private final Berth berth = new Berth("TH1", "thornsea", 34, 2.9, Optional.empty());

    void twoFerriesKeepTheMooringBuffer() {
        BerthPlanner planner = new BerthPlanner(List.of(berth), RuleBook.inForce((terminal, from, until) -> 1.0, 5));
        Plan plan = planner.plan(new Timetable(LocalDate.of(2025, 6, 21), List.of(call("08:00", "08:20"), call("08:25", "08:40"))));
        assert plan.unplaced().size() == 1 : "five minutes are not enough";
    }

    private Call call(String arrival, String departure) {
        return new Call("R4", dunlin, "thornsea", Instant.parse("2025-06-21T" + arrival + ":00Z"), Instant.parse("2025-06-21T" + departure + ":00Z"));
    }
}
