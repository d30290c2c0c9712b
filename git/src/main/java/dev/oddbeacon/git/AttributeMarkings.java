package dev.oddbeacon.git;

import dev.oddbeacon.core.ingest.SourceTree.Marking;
import dev.oddbeacon.core.ingest.SourceTree.Markings;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.text.Split;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.eclipse.jgit.attributes.Attribute;
import org.eclipse.jgit.attributes.AttributesNode;
import org.eclipse.jgit.attributes.AttributesRule;

/**
 * What the {@code .gitattributes} files of a tree say about types and traits: {@code oddbeacon-type=java},
 * {@code oddbeacon-trait=generated,vendored}, {@code -oddbeacon-trait} for none. As in Git, later rules and deeper
 * files win. Types and traits that are not known are passed over.
 */
final class AttributeMarkings implements Markings {
    private static final String TYPE = "oddbeacon-type";
    private static final String TRAIT = "oddbeacon-trait";

    /** What files that match are given. The patterns are ours: matching them takes no more than quadratic time. */
    private record Rule(Glob pattern, boolean isOfName, List<Attribute> attributes) {
        boolean matches(String path) {
            return pattern.matches(isOfName ? path.substring(path.lastIndexOf('/') + 1) : path);
        }
    }

    private final Map<String, List<Rule>> rules =
            new HashMap<>(); // by folder, with a slash at its end unless it is the root

    /** @param path of a {@code .gitattributes} file */
    void add(String path, byte[] content) {
        AttributesNode node = new AttributesNode();
        try {
            node.parse(new ByteArrayInputStream(content));
        } catch (IOException e) {
            return; // cannot be: it is read from memory
        }
        List<Rule> aboutUs = node.getRules().stream()
                .filter(rule -> !rule.isDirOnly()) // which gives nothing to the files in it
                .flatMap(rule -> ours(rule).stream())
                .toList();
        if (!aboutUs.isEmpty()) {
            rules.put(path.substring(0, path.lastIndexOf('/') + 1), aboutUs);
        }
    }

    private static Optional<Rule> ours(AttributesRule rule) {
        List<Attribute> attributes = rule.getAttributes().stream()
                .filter(attribute ->
                        attribute.getKey().equals(TYPE) || attribute.getKey().equals(TRAIT))
                .toList();
        try {
            return attributes.isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Rule(Glob.ofGit(fromFolder(rule.getPattern())), rule.isNameOnly(), attributes));
        } catch (InvalidQueryException e) {
            return Optional.empty(); // Git takes such a pattern for one that nothing matches
        }
    }

    /** A slash in front says that the pattern begins at the folder, which one with a slash in it does anyway. */
    private static String fromFolder(String pattern) {
        return pattern.startsWith("/") ? pattern.substring(1) : pattern;
    }

    @Override
    public Marking of(String path) {
        if (rules.isEmpty()) {
            return Marking.NONE;
        }
        Optional<String> type = Optional.empty();
        Optional<Set<Trait>> traits = Optional.empty();
        for (Attribute attribute : attributes(path)) {
            if (attribute.getKey().equals(TYPE)) {
                type = Optional.ofNullable(attribute.getValue()).filter(FileTypes::isKnown);
            } else if (attribute.getKey().equals(TRAIT)) {
                traits = traits(attribute);
            }
        }
        return new Marking(type, traits);
    }

    /** All that are given to a path, the ones that win last. */
    private List<Attribute> attributes(String path) {
        List<Attribute> attributes = new ArrayList<>();
        for (int start = 0; start >= 0; start = afterSlash(path, start)) {
            String below = path.substring(start);
            rules.getOrDefault(path.substring(0, start), List.of()).stream()
                    .filter(rule -> rule.matches(below))
                    .map(Rule::attributes)
                    .forEach(attributes::addAll);
        }
        return attributes;
    }

    private static int afterSlash(String path, int from) {
        int slash = path.indexOf('/', from);
        return slash < 0 ? -1 : slash + 1;
    }

    private static Optional<Set<Trait>> traits(Attribute attribute) {
        return switch (attribute.getState()) {
            case UNSET -> Optional.of(Set.of());
            case CUSTOM -> {
                Set<Trait> traits = EnumSet.noneOf(Trait.class);
                Split.parts(attribute.getValue(), ',').stream()
                        .map(Trait::of)
                        .flatMap(Optional::stream)
                        .forEach(traits::add);
                yield traits.isEmpty() ? Optional.empty() : Optional.of(traits);
            }
            case SET, UNSPECIFIED -> Optional.empty();
        };
    }
}
