package dev.oddbeacon.core.replace;

import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.shape.Shape;
import dev.oddbeacon.core.shape.ShapeFinder;
import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.Utf8;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/**
 * What stands instead of code of a shape: a text, in which the variables of the shape are what they stand for. Matches
 * within a match are part of it, and not replaced by themselves. For one thread.
 */
public final class ShapeReplacement {
    private final List<Part> parts;
    private final ShapeFinder finder;
    private final Analyser analyser = new Analyser();

    private sealed interface Part {
        record Text(String text) implements Part {}

        record Variable(String name) implements Part {}
    }

    /** A match in UTF-16 units, and what stands instead. */
    public record Change(int start, int end, String with) {}

    private ShapeReplacement(List<Part> parts, ShapeFinder finder) {
        this.parts = parts;
        this.finder = finder;
    }

    /**
     * @param query an expression: one shape, and conditions on files
     * @param stop asked now and then
     * @throws InvalidQueryException if the query is another one, or the template has a variable that the shape has not
     */
    public static ShapeReplacement of(Query query, String template, BooleanSupplier stop) {
        List<Found> shapes = new ArrayList<>();
        collect(query, false, shapes);
        if (shapes.size() != 1) {
            throw noShape();
        }
        Shape shape = shapes.getFirst().shape;
        return new ShapeReplacement(
                parts(template, shape), new ShapeFinder(shape.byLanguage(shapes.getFirst().ignoresCase), stop));
    }

    private record Found(Shape shape, boolean ignoresCase) {}

    private static void collect(Query query, boolean ignoresCase, List<Found> into) {
        switch (query) {
            case TextClause.OfShape ofShape -> into.add(new Found(ofShape.shape(), ignoresCase));
            case Query.Marked marked ->
                collect(
                        marked.part(),
                        marked.mark() == Query.Mark.ANYCASE || ignoresCase && marked.mark() != Query.Mark.EXACTLY,
                        into);
            case Query.And and -> and.parts().forEach(part -> collect(part, ignoresCase, into));
            case Query.Not(FileCondition _), Query.Not(Query.Holds _), FileCondition _, Query.Holds _ -> {}
            default -> throw noShape();
        }
    }

    private static InvalidQueryException noShape() {
        return new InvalidQueryException(
                "An expression finds files, not texts that something could stand instead of. Replace a plain text, a regular expression, or one shape( ), beside which only conditions on files stand.");
    }

    private static List<Part> parts(String template, Shape shape) {
        List<Part> parts = new ArrayList<>();
        int at = 0;
        for (Shape.Variable variable : Shape.variables(template)) {
            boolean isKnown =
                    shape.names().contains(variable.name()) && shape.isRun(variable.name()) == variable.isRun();
            if (!isKnown) {
                throw new InvalidQueryException("The shape has no variable "
                        + template.substring(variable.start(), variable.end()) + ". "
                        + (shape.names().isEmpty() ? "It has none with a name." : "It has " + written(shape) + ".")
                        + " A question mark that is text has a space behind it.");
            }
            parts.add(new Part.Text(template.substring(at, variable.start())));
            parts.add(new Part.Variable(variable.name()));
            at = variable.end();
        }
        parts.add(new Part.Text(template.substring(at)));
        return parts;
    }

    private static String written(Shape shape) {
        return String.join(
                ", ",
                shape.names().stream()
                        .map(name -> (shape.isRun(name) ? "?*" : "?") + name)
                        .toList());
    }

    /** The changes of a text, in their order; they do not overlap. */
    public List<Change> in(String text, Optional<Language> language, int most) {
        if (language.isEmpty()) {
            return List.of();
        }
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        List<Change> changes = new ArrayList<>();
        int at = 0; // up to where units are counted, in bytes
        int units = 0;
        for (ShapeFinder.Match match :
                finder.find(utf8, language.get(), ShapeFinder.regions(analyser.analyse(language.get(), utf8)))) {
            if (match.start() < at || changes.size() == most) {
                continue;
            }
            int start = units + Utf8.units(utf8, at, match.start());
            int end = start + Utf8.units(utf8, match.start(), match.end());
            changes.add(new Change(start, end, with(utf8, match)));
            at = match.end();
            units = end;
        }
        return changes;
    }

    private String with(byte[] utf8, ShapeFinder.Match match) {
        StringBuilder with = new StringBuilder();
        for (Part part : parts) {
            switch (part) {
                case Part.Text(String literal) -> with.append(literal);
                case Part.Variable(String name) -> {
                    ShapeFinder.Span span = match.bound().get(name);
                    with.append(
                            span == null
                                    ? ""
                                    : new String(
                                            utf8, span.start(), span.end() - span.start(), StandardCharsets.UTF_8));
                }
            }
        }
        return with.toString();
    }
}
