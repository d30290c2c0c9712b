package dev.oddbeacon.bench;

import dev.oddbeacon.api.LinesAnswer;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Code of a shape, around names that are drawn from what the source calls. */
final class Shapes {
    private static final int NAMES = 300;
    private static final List<String> FORMS = List.of(
            "%s(?*)",
            "%s(?a, ?*)",
            "%s(?a)",
            "?x = %s(?*);",
            "if (%s(?*)) { ?* }",
            "if (?c) %s(?*);",
            "return %s(?*)",
            "?x = %s(?*); if (?x) { ?* }",
            "%s(?a, ?b); ?*rest }",
            "!%s(?x)");
    /** What a tree of C holds thousands of times. */
    private static final List<String> FREQUENT = List.of(
            "kfree(?x); kfree(?y);",
            "if (!?x) return -ENOMEM;",
            "mutex_lock(?l); ?* }, without: mutex_unlock(?l)",
            "?x = kzalloc(sizeof(*?x), ?flags)",
            "for (?i = 0; ?i < ?n; ?i++) { ?* }",
            "if (?c) { ?*same } else { ?*same }",
            "spin_lock_irqsave(?*); ?* spin_unlock_irqrestore(?*)",
            "list_for_each_entry(?x, ?*) { ?* kfree(?x); ?* }");

    private Shapes() {}

    static void measure(Running service, Path source, Table table) throws IOException, InterruptedException {
        Figures ours = new Figures();
        List<String> names = new Words(source).called(NAMES);
        List<String> shapes = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            shapes.add(FORMS.get(i % FORMS.size()).formatted(names.get(i)));
        }
        for (String shape : shapes) {
            ours.add(counted(service, shape));
        }
        table.target(
                "300 shapes around a name that the source calls, every line counted",
                "median 15 ms",
                ours.at(0.5) <= 15,
                "median %.1f ms, 95 %% under %.0f ms, longest %.0f ms",
                ours.at(0.5),
                ours.at(0.95),
                ours.at(1));
        for (String shape : FREQUENT) {
            LinesAnswer found = service.search(Running.parameter("q", "shape(" + shape + ")")
                    + "&reading=expression&only=counts&repo=" + Indexing.NAME);
            table.note(
                    "`shape(" + shape + ")`",
                    "%d lines%s, %.0f ms",
                    found.counts().hits(),
                    found.stopped() == null ? "" : " (stopped)",
                    counted(service, shape));
        }
    }

    private static double counted(Running service, String shape) throws IOException, InterruptedException {
        return Counting.counted(service, "shape(" + shape + ")", "expression", Indexing.SCOPE);
    }
}
