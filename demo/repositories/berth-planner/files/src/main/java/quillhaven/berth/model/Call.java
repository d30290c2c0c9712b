package quillhaven.berth.model;

import java.time.Instant;

/** A ferry that wants to lie at a terminal. */
public record Call(String route, Vessel vessel, String terminal, Instant arrival, Instant departure) {}
