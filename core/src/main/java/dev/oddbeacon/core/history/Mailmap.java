package dev.oddbeacon.core.history;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;

/**
 * Who people are, by the file {@code .mailmap} of a repository: {@code Proper Name <proper@address> Commit Name
 * <commit@address>}, with the parts that may be left out as gitmailmap(5) has it.
 */
public final class Mailmap {
    public static final Mailmap NONE = new Mailmap(Map.of());
    private static final Pattern LINE = Pattern.compile("([^<#]*)<([^>]*)>(?:([^<]*)<([^>]*)>)?.*");

    /** By address in small letters, or name, line feed and address: what is proper; empty parts are not replaced. */
    private final Map<String, Commit.Person> proper;

    private Mailmap(Map<String, Commit.Person> proper) {
        this.proper = proper;
    }

    public static Mailmap of(String text) {
        Map<String, Commit.Person> proper = new HashMap<>();
        for (String line : text.lines().toList()) {
            Matcher matcher = LINE.matcher(line);
            if (line.startsWith("#") || !matcher.matches()) {
                continue;
            }
            String name = matcher.group(1).strip();
            if (matcher.group(4) == null) {
                proper.merge(folded(matcher.group(2)), new Commit.Person(name, ""), Mailmap::both);
            } else {
                String oldName = matcher.group(3).strip();
                String key = oldName.isEmpty() ? folded(matcher.group(4)) : key(oldName, matcher.group(4));
                proper.merge(key, new Commit.Person(name, matcher.group(2).strip()), Mailmap::both);
            }
        }
        return new Mailmap(proper);
    }

    /** A later line replaces the parts that it names. */
    private static Commit.Person both(Commit.Person before, Commit.Person after) {
        return new Commit.Person(
                after.name().isEmpty() ? before.name() : after.name(),
                after.email().isEmpty() ? before.email() : after.email());
    }

    private static String folded(String address) {
        return address.strip().toLowerCase(Locale.ROOT);
    }

    private static String key(String name, String address) {
        return name.toLowerCase(Locale.ROOT) + "\n" + folded(address);
    }

    public Commit.Person proper(Commit.Person person) {
        Commit.Person found =
                proper.getOrDefault(key(person.name(), person.email()), proper.get(folded(person.email())));
        return found == null
                ? person
                : new Commit.Person(
                        found.name().isEmpty() ? person.name() : found.name(),
                        found.email().isEmpty() ? person.email() : found.email());
    }
}
