package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;

/** Finds a shape in one text after another. For one thread. */
public final class ShapeFinder {
    private static final int FIRST_PART = 1_024;

    private final ShapesByLanguage shapes;
    private final BooleanSupplier stop;
    private final int firstPart;
    private final Map<String, Tokens> tokensByLanguage = new HashMap<>();
    private final Map<String, Syntax> syntaxes = new HashMap<>();

    public ShapeFinder(ShapesByLanguage shapes, BooleanSupplier stop) {
        this(shapes, stop, FIRST_PART);
    }

    /** @param firstPart the bytes around a word that are looked at first */
    ShapeFinder(ShapesByLanguage shapes, BooleanSupplier stop, int firstPart) {
        this.shapes = shapes;
        this.stop = stop;
        this.firstPart = firstPart;
    }

    /**
     * Where the shape stands. Offsets are bytes.
     *
     * @param bound by name, what its variables stand for; without those that stand in no part that must match
     */
    public record Match(int start, int end, Map<String, Span> bound) {}

    /** A range of the text; empty for a run of no tokens. */
    public record Span(int start, int end) {}

    /** The regions that an analysis told; as long as that is valid. */
    public static RegionSource regions(Analysis analysis) {
        return new Elements.RegionsFound(analysis.found());
    }

    /**
     * All matches, ordered by where they start; at most one begins at a token. They may overlap.
     *
     * @throws ScanStoppedException once it is told to stop
     */
    public List<Match> find(byte[] utf8, Language language, RegionSource regions) {
        List<ShapesByLanguage.InLanguage> forms = shapes.in(language);
        if (forms.isEmpty()) {
            return List.of();
        }
        Tokens tokens = tokensByLanguage.computeIfAbsent(language.name(), _ -> new Tokens(language));
        Syntax syntax = syntaxes.computeIfAbsent(language.name(), _ -> new Syntax(language));
        List<Match> found = new ArrayList<>();
        for (ShapesByLanguage.InLanguage form : forms) {
            new FormFinder(shapes, form, tokens, new Operands(tokens, syntax), stop)
                    .collect(utf8, regions, firstPart, found);
        }
        return forms.size() == 1
                ? found
                : found.stream()
                        .distinct()
                        .sorted(Comparator.comparingInt(Match::start))
                        .toList();
    }
}
