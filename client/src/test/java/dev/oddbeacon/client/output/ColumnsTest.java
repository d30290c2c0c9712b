package dev.oddbeacon.client.output;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Records of CSV, against a reader of RFC 4180 that knows nothing of how they are written. */
class ColumnsTest {
    private static final String[] PIECES = {"tide", ",", "\"", " ", "é", "\t", "''", "\"\"", ";", "⛴"};

    private static List<String> read(String record) {
        List<String> fields = new ArrayList<>();
        StringBuilder field = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < record.length(); i++) {
            char c = record.charAt(i);
            if (quoted && c == '"' && i + 1 < record.length() && record.charAt(i + 1) == '"') {
                field.append('"');
                i++;
            } else if (c == '"' && (quoted || field.isEmpty())) {
                quoted = !quoted;
            } else if (c == ',' && !quoted) {
                fields.add(field.toString());
                field.setLength(0);
            } else {
                field.append(c);
            }
        }
        fields.add(field.toString());
        return fields;
    }

    @Test
    void areReadBackAsTheyWere() {
        Random random = new Random(3);
        Columns<List<String>> columns = new Columns<List<String>>()
                .add("first", fields -> fields.get(0))
                .add("second", fields -> fields.get(1))
                .add("third", fields -> fields.get(2));
        assertThat(columns.header()).isEqualTo("first,second,third");
        for (int round = 0; round < 2_000; round++) {
            List<String> fields = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                StringBuilder field = new StringBuilder();
                for (int k = random.nextInt(4); k > 0; k--) {
                    field.append(PIECES[random.nextInt(PIECES.length)]);
                }
                fields.add(field.toString());
            }
            String record = columns.record(fields);
            assertThat(read(record)).as(record).isEqualTo(fields);
        }
    }

    @Test
    void areOneLineWhateverTheValueHolds() {
        Columns<String> columns = new Columns<String>().add("text", text -> text);
        assertThat(columns.record("two\r\nlines \033[2J")).doesNotContain("\n", "\r", "\033");
    }

    @Test
    void leaveAFieldEmptyForWhatIsNotThere() {
        Columns<String> columns = new Columns<String>().add("a", _ -> null).add("b", text -> text);
        assertThat(columns.record("x")).isEqualTo(",x");
    }

    @Test
    void areTextToASpreadsheetAndNoFormula() {
        Columns<String> columns =
                new Columns<String>().add("text", text -> text).add("number", _ -> -3);
        assertThat(columns.record("=cmd|' /C calc'!A0")).isEqualTo("'=cmd|' /C calc'!A0,-3");
        assertThat(columns.record("\t@SUM(A1)")).isEqualTo("'\t@SUM(A1),-3");
        assertThat(columns.record("\ttide = 1")).isEqualTo("\ttide = 1,-3");
    }
}
