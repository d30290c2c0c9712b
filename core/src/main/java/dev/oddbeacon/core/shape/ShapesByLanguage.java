package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Language;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;

/**
 * A shape as code of each language, made when a file of that language is met. Many threads may share one; each takes a
 * {@link ShapeFinder} of its own.
 */
public final class ShapesByLanguage {
    private static final int MOST_TEXTS = 12;
    private final Shape shape;
    private final boolean ignoresCase;
    private final Map<String, List<InLanguage>> byLanguage = new ConcurrentHashMap<>();

    /**
     * A form of the shape.
     *
     * @param without what does not stand within the code
     * @param anchor empty if no word of the code is rare
     */
    record InLanguage(Elements code, List<Elements> without, Optional<Anchor> anchor) {}

    ShapesByLanguage(Shape shape, boolean ignoresCase) {
        this.shape = shape;
        this.ignoresCase = ignoresCase;
    }

    /** What a file must hold for the shape to stand in it, whatever its case: one of these lists, all texts of it. */
    public List<List<String>> required() {
        if (Language.all().values().stream().noneMatch(language -> language.mayHoldComment(shape.code()))) {
            return List.of(longest(shape.words()));
        }
        return Language.all().values().stream()
                .flatMap(language -> in(language).stream())
                .map(form -> longest(texts(form.code)))
                .distinct()
                .collect(Collectors.toList());
    }

    private static Set<String> texts(Elements code) {
        Set<String> texts = new LinkedHashSet<>();
        for (Elements.Element element : code.all()) {
            if (element instanceof Elements.Element.Literal(int token)
                    && code.tokens().sign(token) == 0) {
                code.tokens().text(token).lines().forEach(texts::add);
            }
        }
        return texts;
    }

    private static List<String> longest(Collection<String> texts) {
        return texts.stream()
                .filter(text -> !text.isBlank())
                .distinct()
                .sorted((a, b) -> b.length() - a.length())
                .limit(MOST_TEXTS)
                .toList();
    }

    /** The forms of the shape in a language; none if it has no tokens there. */
    List<InLanguage> in(Language language) {
        return byLanguage.computeIfAbsent(language.name(), _ -> forms(language));
    }

    private List<InLanguage> forms(Language language) {
        Analyser analyser = new Analyser();
        List<InLanguage> found = new ArrayList<>();
        for (Language inner : inners(language)) {
            Elements code = Elements.of(shape.code(), language, inner, shape.names(), analyser);
            if (code.all().stream().anyMatch(Elements.Element.Literal.class::isInstance)) {
                found.add(new InLanguage(
                        code,
                        shape.without().stream()
                                .map(part -> Elements.of(part, language, inner, shape.names(), analyser))
                                .filter(part -> !part.all().isEmpty())
                                .toList(),
                        Anchor.of(code, ignoresCase)));
            }
        }
        return List.copyOf(found);
    }

    /** The languages that code in a file may be written in. */
    private static Set<Language> inners(Language language) {
        Set<Language> inners = new LinkedHashSet<>(List.of(language));
        language.embedded().values().forEach(name -> Language.named(name).ifPresent(inners::add));
        return inners;
    }

    public Shape shape() {
        return shape;
    }

    boolean ignoresCase() {
        return ignoresCase;
    }
}
