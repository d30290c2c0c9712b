package quillhaven.berth.model;

import java.util.Optional;

/** A place where one ferry can lie. */
public record Berth(String id, String terminal, double lengthMetres, double sillDepthMetres, Optional<ShoreConnection> connection) {

    public Berth {
        if (lengthMetres <= 0) {
            throw new IllegalArgumentException("berth " + id + " has no length");
        }
    }

    /** Whether a hull fits between the fenders. */
    public boolean fits(Vessel vessel) {
        return vessel.lengthMetres() + 2 * vessel.fenderMetres() <= lengthMetres;
    }

    public boolean canCharge(Vessel vessel) {
        return connection.map(shore -> shore.voltage() == vessel.chargingVoltage()).orElse(false);
    }
}
