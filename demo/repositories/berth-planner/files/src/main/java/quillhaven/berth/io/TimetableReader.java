package quillhaven.berth.io;

import java.io.BufferedReader;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import quillhaven.berth.model.Call;
import quillhaven.berth.model.Timetable;
import quillhaven.berth.model.Vessel;

/** Reads the timetable's export: route;vessel;terminal;arrival;departure */
public final class TimetableReader {
    private static final int FIELDS = 5;

    private final Map<String, Vessel> fleet;

    public TimetableReader(Map<String, Vessel> fleet) {
        this.fleet = Map.copyOf(fleet);
    }

    public Timetable read(LocalDate day, BufferedReader in) throws IOException {
        List<Call> calls = new ArrayList<>();
        int number = 0;
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            number++;
            if (line.isBlank() || line.startsWith("#")) {
                continue;
            }
            String[] fields = line.split(";", -1);
            if (fields.length != FIELDS) {
                throw new IOException("line " + number + ": " + fields.length + " fields instead of " + FIELDS);
            }
            Vessel vessel = fleet.get(fields[1]);
            if (vessel == null) {
                throw new IOException("line " + number + ": there is no ferry " + fields[1]);
            }
            calls.add(new Call(fields[0], vessel, fields[2], Instant.parse(fields[3]), Instant.parse(fields[4])));
        }
        return new Timetable(day, calls);
    }
}
