package quillhaven.berth.model;

/** A plug on the quay. */
public record ShoreConnection(int voltage, int kilowatts) {}
