package quillhaven.berth.rule;

import quillhaven.berth.model.Stay;

/** A rule that a stay would break. */
public record Violation(String rule, Stay stay, String detail) {}
