package quillhaven.berth.rule;

import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Stay;

/** Something that a plan must not break. */
public interface Rule {
    Optional<Violation> check(Stay candidate, List<Stay> others);
}
