package quillhaven.berth.io;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.StringReader;
import java.time.LocalDate;
import java.util.Map;

class TimetableReaderTest {
    void anUnknownFerryIsSaid() {
        try {
            new TimetableReader(Map.of()).read(LocalDate.EPOCH, new BufferedReader(new StringReader("R1;Nobody;thornsea;x;y")));
        } catch (IOException e) {
            assert e.getMessage().equals("line 1: there is no ferry Nobody");
        }
    }
}
