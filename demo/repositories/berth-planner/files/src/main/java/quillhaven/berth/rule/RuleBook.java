package quillhaven.berth.rule;

import java.util.List;
import quillhaven.berth.plan.MooringBuffer;
import quillhaven.berth.tide.TideSource;

/** The rules that are in force. */
public final class RuleBook {
    private RuleBook() {}

    public static List<Rule> inForce(TideSource tide, double wind) {
        return List.of(new LengthRule(), new BufferRule(MooringBuffer.inWind(wind)), new DepthRule(tide), new QuietHoursRule());
    }
}
