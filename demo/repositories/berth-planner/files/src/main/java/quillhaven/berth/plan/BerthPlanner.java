package quillhaven.berth.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Berth;
import quillhaven.berth.model.Call;
import quillhaven.berth.model.Stay;
import quillhaven.berth.model.Timetable;
import quillhaven.berth.rule.Rule;
import quillhaven.berth.rule.Violation;

/**
 * Assigns a berth to each call of a day. Calls are taken in the order of their arrival; a call that finds no berth
 * may push an earlier one to another berth, once.
 */
public final class BerthPlanner {
    private final List<Berth> berths;
    private final List<Rule> rules;

    public BerthPlanner(List<Berth> berths, List<Rule> rules) {
        this.berths = List.copyOf(berths);
        this.rules = List.copyOf(rules);
    }

    public Plan plan(Timetable timetable) {
        List<Stay> stays = new ArrayList<>();
        List<Call> unplaced = new ArrayList<>();
        for (Call call : timetable.calls()) {
            Optional<Stay> stay = assign(call, stays).or(() -> assignByPushing(call, stays));
            stay.ifPresentOrElse(stays::add, () -> unplaced.add(call));
        }
        return new Plan(timetable.day(), stays, unplaced);
    }

    private Optional<Stay> assign(Call call, List<Stay> stays) {
        for (Berth berth : berths) {
            Stay candidate = new Stay(call.vessel(), berth, call.arrival(), call.departure(), berth.canCharge(call.vessel()));
            if (berth.terminal().equals(call.terminal()) && violations(candidate, stays).isEmpty()) {
                return Optional.of(candidate);
            }
        }
        return Optional.empty();
    }

    private Optional<Stay> assignByPushing(Call call, List<Stay> stays) {
        for (int i = stays.size() - 1; i >= 0; i--) {
            Stay pushed = stays.get(i);
            if (!pushed.berth().terminal().equals(call.terminal())) {
                continue;
            }
            List<Stay> others = new ArrayList<>(stays);
            others.remove(i);
            Optional<Stay> mine = assign(call, others);
            if (mine.isEmpty()) {
                continue;
            }
            others.add(mine.get());
            Call again = new Call("", pushed.vessel(), pushed.berth().terminal(), pushed.arrival(), pushed.departure());
            Optional<Stay> moved = assign(again, others);
            if (moved.isPresent()) {
                stays.set(i, moved.get());
                return mine;
            }
        }
        return Optional.empty();
    }

    List<Violation> violations(Stay candidate, List<Stay> stays) {
        return rules.stream().flatMap(rule -> rule.check(candidate, stays).stream()).toList();
    }
}
