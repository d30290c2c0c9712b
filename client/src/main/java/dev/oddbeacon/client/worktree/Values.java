package dev.oddbeacon.client.worktree;

import dev.oddbeacon.core.search.FileInHand;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Parameters of a search, as the service would read them. */
record Values(Map<String, List<String>> parameters) {
    /** Empty if it is not given. */
    String text(String name) {
        List<String> values = parameters.getOrDefault(name, List.of());
        return values.isEmpty() ? "" : values.getFirst();
    }

    boolean isTrue(String name) {
        return text(name).equals("true");
    }

    /** What {@code near} names. */
    Optional<FileInHand> inHand() {
        return FileInHand.parse(text("near"));
    }

    int number(String name, int otherwise) {
        return text(name).isEmpty() ? otherwise : Integer.parseInt(text(name));
    }

    /** The first of the constants if it is not given. */
    <E extends Enum<E>> E oneOf(E[] constants, String name) {
        String wanted = text(name).replace('-', '_').toUpperCase(Locale.ROOT);
        for (E constant : constants) {
            if (constant.name().equals(wanted)) {
                return constant;
            }
        }
        return constants[0];
    }
}
