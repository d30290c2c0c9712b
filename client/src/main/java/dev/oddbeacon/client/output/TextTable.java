package dev.oddbeacon.client.output;

import java.util.List;
import java.util.Set;

/** A table for people: columns as wide as what stands in them. */
public final class TextTable {
    private TextTable() {}

    /**
     * @param head names of the columns
     * @param numbers indices of the columns that are aligned to the right
     */
    public static void print(Terminal terminal, List<String> head, List<List<String>> rows, Set<Integer> numbers) {
        int[] widths = new int[head.size()];
        for (int i = 0; i < widths.length; i++) {
            int column = i;
            widths[i] = Math.max(
                    head.get(i).length(),
                    rows.stream()
                            .mapToInt(row -> Terminal.clean(row.get(column)).length())
                            .max()
                            .orElse(0));
        }
        terminal.line(terminal.styled(Terminal.Style.QUIET, row(head, widths, numbers)));
        rows.forEach(row -> terminal.line(row(row, widths, numbers)));
    }

    private static String row(List<String> cells, int[] widths, Set<Integer> numbers) {
        StringBuilder row = new StringBuilder();
        for (int i = 0; i < widths.length; i++) {
            String cell = Terminal.clean(cells.get(i));
            String padding = " ".repeat(widths[i] - cell.length());
            row.append(numbers.contains(i) ? padding + cell : cell + padding).append("  ");
        }
        return row.toString().stripTrailing();
    }
}
