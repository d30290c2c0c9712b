package quillhaven.berth.fleet;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import quillhaven.berth.model.Berth;
import quillhaven.berth.model.ShoreConnection;
import quillhaven.berth.model.Vessel;

/** The ferries and berths of the co-operative. */
public final class Fleet {
    private Fleet() {}

    public static Map<String, Vessel> vessels() {
        return Map.of(
                "Sandpiper", new Vessel("Sandpiper", 24.5, 1.6, 0.4, 690),
                "Dunlin", new Vessel("Dunlin", 24.5, 1.6, 0.4, 690),
                "Turnstone", new Vessel("Turnstone", 31.0, 1.9, 0.5, 1000),
                "Whimbrel", new Vessel("Whimbrel", 31.0, 1.9, 0.5, 1000),
                "Oystercatcher", new Vessel("Oystercatcher", 42.0, 2.4, 0.6, 1000));
    }

    public static List<Berth> berths() {
        return List.of(
                new Berth("OP1", "quillhaven-old-pier", 34, 3.1, Optional.empty()),
                new Berth("OP2", "quillhaven-old-pier", 28, 2.7, Optional.of(new ShoreConnection(690, 400))),
                new Berth("NB1", "quillhaven-north-basin", 48, 4.2, Optional.of(new ShoreConnection(1000, 1200))),
                new Berth("TH1", "thornsea", 34, 2.9, Optional.of(new ShoreConnection(1000, 600))),
                new Berth("SK1", "skerry-lodge", 28, 2.3, Optional.empty()));
    }

    /** TODO: read the forecast of the day; until then the strongest wind of an ordinary week. */
    public static double forecastWind(LocalDate day) {
        return day.getMonthValue() >= 10 || day.getMonthValue() <= 3 ? 15.0 : 9.0;
    }
}
