package quillhaven.berth.plan;

import java.time.LocalDate;
import java.util.List;
import quillhaven.berth.model.Call;
import quillhaven.berth.model.Stay;

/** The outcome: stays that break no rule, and calls for which there is no berth. */
public record Plan(LocalDate day, List<Stay> stays, List<Call> unplaced) {

    public boolean isComplete() {
        return unplaced.isEmpty();
    }
}
