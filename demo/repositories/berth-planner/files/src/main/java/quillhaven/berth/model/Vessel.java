package quillhaven.berth.model;

/** A ferry, as far as the planner cares. */
public record Vessel(String name, double lengthMetres, double draughtMetres, double fenderMetres, int chargingVoltage) {

    /** Water under the keel that the classification society asks for. */
    public double underKeelClearance() {
        return Math.max(0.5, draughtMetres * 0.15);
    }
}
