package quillhaven.berth.model;

import java.time.LocalDate;
import java.util.List;

/** All calls of one day, in the order of their arrival. */
public record Timetable(LocalDate day, List<Call> calls) {

    public Timetable {
        calls = List.copyOf(calls);
    }

    public List<Call> callsAt(String terminal) {
        return calls.stream().filter(call -> call.terminal().equals(terminal)).toList();
    }
}
