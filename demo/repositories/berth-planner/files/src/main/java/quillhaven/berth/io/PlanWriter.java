package quillhaven.berth.io;

import java.io.PrintWriter;
import quillhaven.berth.model.Stay;
import quillhaven.berth.plan.Plan;

/** Writes a plan the way deck-signs reads it. */
public final class PlanWriter {
    public void write(Plan plan, PrintWriter out) {
        out.println("# plan for " + plan.day());
        for (Stay stay : plan.stays()) {
            out.printf("%s;%s;%s;%s%s%n", stay.berth().id(), stay.vessel().name(), stay.arrival(), stay.departure(), stay.charging() ? ";charging" : "");
        }
        plan.unplaced().forEach(call -> out.println("! no berth for " + call.vessel().name() + " at " + call.terminal()));
    }
}
