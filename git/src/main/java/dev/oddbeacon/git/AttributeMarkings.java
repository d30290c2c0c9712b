package dev.oddbeacon.git;

import dev.oddbeacon.core.ingest.SourceTree.Marking;
import dev.oddbeacon.core.ingest.SourceTree.Markings;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Trait;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
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

    private final Map<String, AttributesNode> nodes =
            new HashMap<>(); // by folder, with a slash at its end unless it is the root

    /** @param path of a {@code .gitattributes} file */
    void add(String path, byte[] content) {
        AttributesNode node = new AttributesNode();
        try {
            node.parse(new ByteArrayInputStream(content));
        } catch (IOException e) {
            return; // cannot be: it is read from memory
        }
        boolean isAboutUs = node.getRules().stream()
                .flatMap(rule -> rule.getAttributes().stream())
                .anyMatch(attribute ->
                        attribute.getKey().equals(TYPE) || attribute.getKey().equals(TRAIT));
        if (isAboutUs) {
            nodes.put(path.substring(0, path.lastIndexOf('/') + 1), node);
        }
    }

    @Override
    public Marking of(String path) {
        if (nodes.isEmpty()) {
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
            AttributesNode node = nodes.get(path.substring(0, start));
            if (node != null) {
                String below = path.substring(start);
                node.getRules().stream()
                        .filter(rule -> rule.isMatch(below, false))
                        .map(AttributesRule::getAttributes)
                        .forEach(attributes::addAll);
            }
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
                Arrays.stream(attribute.getValue().split(","))
                        .map(Trait::of)
                        .flatMap(Optional::stream)
                        .forEach(traits::add);
                yield traits.isEmpty() ? Optional.empty() : Optional.of(traits);
            }
            case SET, UNSPECIFIED -> Optional.empty();
        };
    }
}
