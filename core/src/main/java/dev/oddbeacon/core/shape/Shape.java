package dev.oddbeacon.core.shape;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * Code as a sequence of tokens, with variables in it. Blanks, comments and ends of lines do not count.
 *
 * <p>{@code ?name} is one expression or one block, and the same text wherever that name stands again; {@code ?*name} is
 * any number of tokens, none included, that close the brackets they open. {@code ?_} and {@code ?*} are never held
 * against each other. A question mark that no letter follows is itself.
 *
 * @param code what is found
 * @param without what does not stand within it; the variables of the code mean the same there
 */
public record Shape(String code, List<String> without) {
    /** What a variable without a name is called. */
    static final String ANY = "_";

    private static final int MOST_VARIABLES = 30;

    public Shape {
        without = List.copyOf(without);
    }

    /** A variable where it stands. */
    public record Variable(int start, int end, String name, boolean isRun) {}

    /** What is wrong with a shape, in a sentence; empty if it is right. */
    public Optional<String> mistake() {
        Set<String> single = new TreeSet<>();
        Set<String> runs = new TreeSet<>();
        for (String part : parts()) {
            List<Variable> variables = variables(part);
            variables.stream()
                    .filter(variable -> !variable.name.equals(ANY))
                    .forEach(variable -> (variable.isRun ? runs : single).add(variable.name));
            String rest = others(part, variables);
            if (rest.isBlank()) {
                return Optional.of(
                        "A shape needs a word, a number, a string or a sign besides its variables, as in shape(assign(?stay, null)).");
            }
            boolean beginsOpen = variables.stream()
                    .anyMatch(variable -> variable.isRun
                            && (part.substring(0, variable.start).isBlank()
                                    || part.substring(variable.end).isBlank()));
            if (beginsOpen) {
                return Optional.of(
                        "A shape that begins or ends with ?* could go on for ever. Leave it out, or write what stands before or behind it.");
            }
        }
        if (single.stream().anyMatch(runs::contains)) {
            String name = single.stream().filter(runs::contains).findFirst().orElseThrow();
            return Optional.of("?" + name + " is one expression and ?*" + name
                    + " any number of tokens: give one of them another name.");
        }
        if (single.size() + runs.size() > MOST_VARIABLES) {
            return Optional.of(
                    "A shape has at most " + MOST_VARIABLES + " variables. Take ?_ and ?* where it does not matter.");
        }
        return Optional.empty();
    }

    private List<String> parts() {
        List<String> parts = new ArrayList<>();
        parts.add(code);
        parts.addAll(without);
        return parts;
    }

    private static String others(String part, List<Variable> variables) {
        StringBuilder rest = new StringBuilder();
        int at = 0;
        for (Variable variable : variables) {
            rest.append(part, at, variable.start).append(' ');
            at = variable.end;
        }
        return rest.append(part, at, part.length()).toString();
    }

    /** Names of the variables that are told apart, in the order in which they come first. */
    public List<String> names() {
        Map<String, Boolean> names = new LinkedHashMap<>();
        for (String part : parts()) {
            for (Variable variable : variables(part)) {
                if (!variable.name.equals(ANY)) {
                    names.put(variable.name, variable.isRun);
                }
            }
        }
        return List.copyOf(names.keySet());
    }

    /** Whether a variable stands for any number of tokens. */
    public boolean isRun(String name) {
        return parts().stream()
                .flatMap(part -> variables(part).stream())
                .anyMatch(variable -> variable.isRun && variable.name.equals(name));
    }

    /** The variables in a text, in their order. */
    public static List<Variable> variables(String text) {
        List<Variable> found = new ArrayList<>();
        for (int at = text.indexOf('?'); at >= 0; at = text.indexOf('?', at + 1)) {
            boolean followsWord = at > 0 && isOfName(text.charAt(at - 1));
            boolean isRun = at + 1 < text.length() && text.charAt(at + 1) == '*';
            int start = at + (isRun ? 2 : 1);
            int end = start;
            while (end < text.length() && isOfName(text.charAt(end))) {
                end++;
            }
            boolean isNamed = end > start && !(text.charAt(start) >= '0' && text.charAt(start) <= '9');
            if (!followsWord && (isNamed || isRun && end == start)) {
                found.add(new Variable(at, end, isNamed ? text.substring(start, end) : ANY, isRun));
                at = end - 1;
            }
        }
        return found;
    }

    private static boolean isOfName(char c) {
        return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c == '_';
    }

    /** The words of the code, those in its strings included. */
    List<String> words() {
        List<String> words = new ArrayList<>();
        StringBuilder word = new StringBuilder();
        String others = others(code, variables(code)) + " ";
        for (int i = 0; i < others.length(); i++) {
            char c = others.charAt(i);
            if (isOfName(c) || c >= 0x80) {
                word.append(c);
            } else if (!word.isEmpty()) {
                words.add(word.toString());
                word.setLength(0);
            }
        }
        return words;
    }

    /** This shape as code of each language. */
    public ShapesByLanguage byLanguage(boolean ignoresCase) {
        return new ShapesByLanguage(this, ignoresCase);
    }
}
