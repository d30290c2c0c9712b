package dev.oddbeacon.server.files;

import dev.oddbeacon.core.text.Split;
import java.util.Set;
import java.util.stream.Collectors;

/** Names of the entries of an archive: whatever a repository calls its files, unpacking stays below one folder. */
final class ArchiveNames {
    private ArchiveNames() {}

    /**
     * A name without parts that lead elsewhere on some system: {@code ..}, an empty one, a backslash, a drive, a control
     * character. What is not allowed becomes an underscore.
     */
    static String harmless(String path) {
        return Split.names(path).stream()
                .map(name -> name.equals("..") || name.equals(".") ? "_" : withoutSigns(name))
                .collect(Collectors.joining("/"));
    }

    private static String withoutSigns(String name) {
        StringBuilder harmless = new StringBuilder();
        name.codePoints().forEach(c -> {
            int type = Character.getType(c);
            boolean isControl = type == Character.CONTROL || type == Character.FORMAT;
            harmless.appendCodePoint(isControl || "\\:*?\"<>|".indexOf(c) >= 0 ? '_' : c);
        });
        return harmless.toString();
    }

    /** A name that none of the others is, which it is added to. */
    static String unique(String name, Set<String> others) {
        String unique = name;
        for (int number = 2; !others.add(unique); number++) {
            unique = name + "~" + number;
        }
        return unique;
    }
}
