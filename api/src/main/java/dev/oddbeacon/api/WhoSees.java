package dev.oddbeacon.api;

import java.util.List;

/**
 * Who sees a repository: {@code GET /api/v1/repositories/{name}/viewers}.
 *
 * @param visibleTo as {@link Viewers} says it, sorted
 * @param people everybody with an account who sees it, by name; administrators among them
 */
public record WhoSees(List<String> visibleTo, List<Person> people) {
    /** @param why {@code administrator}, {@code everybody}, {@code team:NAME} or {@code person:NAME}, each that holds */
    public record Person(String name, String displayName, List<String> why) {}
}
