package quillhaven.berth.model;

import java.util.Optional;

class BerthTest {
    void aFerryNeedsRoomForItsFenders() {
        Berth berth = new Berth("SK1", "skerry-lodge", 25, 2.3, Optional.empty());
        assert !berth.fits(new Vessel("Sandpiper", 24.5, 1.6, 0.4, 690));
    }
}
