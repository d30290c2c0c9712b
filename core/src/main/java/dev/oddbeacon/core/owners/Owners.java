package dev.oddbeacon.core.owners;

import dev.oddbeacon.core.exclusion.ExclusionPattern;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Who owns which files, as a repository says it in a file named CODEOWNERS: a pattern a line, and owners behind it; the last
 * pattern that matches decides. In sections, {@code [Name] @owner}, each decides for itself, and its owners are those of lines
 * that name none.
 */
public final class Owners {
    /** Where such a file may be; the first that is there counts. */
    public static final List<String> PATHS =
            List.of(".github/CODEOWNERS", "CODEOWNERS", "docs/CODEOWNERS", ".gitlab/CODEOWNERS");

    /** No owners at all. */
    public static final Owners NONE = new Owners(List.of());

    private static final String FILES_ONLY = "/*"; // ends a pattern that takes no files of deeper folders

    private final List<List<Rule>> sections;

    private record Rule(ExclusionPattern pattern, boolean filesOnly, List<String> owners) {
        boolean matches(String path) {
            for (int end = path.length(); end > 0; end = path.lastIndexOf('/', end - 1)) {
                boolean isFolder = end < path.length();
                if ((!isFolder || !filesOnly) && pattern.matches(path.substring(0, end), isFolder)) {
                    return true;
                }
            }
            return false;
        }
    }

    private Owners(List<List<Rule>> sections) {
        this.sections = sections;
    }

    /** Reads such a file; lines that cannot be understood count for nothing. */
    public static Owners parse(String text) {
        List<List<Rule>> sections = new ArrayList<>(List.of(new ArrayList<>()));
        List<String> usual = List.of();
        int number = 0;
        for (String line : text.lines().toList()) {
            number++;
            String stripped = line.strip();
            Optional<List<String>> section = section(stripped);
            if (section.isPresent()) {
                sections.add(new ArrayList<>());
                usual = section.get();
            } else if (!stripped.isEmpty() && !stripped.startsWith("#")) {
                rule(number, stripped, usual).ifPresent(sections.getLast()::add);
            }
        }
        return new Owners(sections);
    }

    /** The owners that the head of a section names. */
    private static Optional<List<String>> section(String line) {
        String head = line.startsWith("^[") ? line.substring(1) : line;
        int end = head.indexOf(']');
        if (!head.startsWith("[") || end < 0) {
            return Optional.empty();
        }
        String rest = head.substring(end + 1);
        int count = rest.startsWith("[") ? rest.indexOf(']') : -1; // of approvals
        return Optional.of(named(Split.words(count < 0 ? rest : rest.substring(count + 1))));
    }

    private static Optional<Rule> rule(int number, String line, List<String> usual) {
        int end = 0;
        while (end < line.length() && !(Character.isWhitespace(line.charAt(end)) && line.charAt(end - 1) != '\\')) {
            end++;
        }
        String pattern = line.substring(0, end);
        List<String> owners = named(Split.words(line.substring(end)));
        try {
            return ExclusionPattern.of(number, pattern)
                    .filter(one -> !one.bringsBack())
                    .map(one -> new Rule(one, pattern.endsWith(FILES_ONLY), owners.isEmpty() ? usual : owners));
        } catch (InvalidQueryException _) {
            return Optional.empty();
        }
    }

    /** Owners up to a remark. */
    private static List<String> named(List<String> words) {
        return words.stream().takeWhile(word -> !word.startsWith("#")).toList();
    }

    /** The owners of a file, in the order in which they are named; none if nobody is. */
    public List<String> of(String path) {
        Set<String> owners = new LinkedHashSet<>();
        for (List<Rule> section : sections) {
            for (int i = section.size() - 1; i >= 0; i--) {
                if (section.get(i).matches(path)) {
                    owners.addAll(section.get(i).owners);
                    break;
                }
            }
        }
        return List.copyOf(owners);
    }
}
