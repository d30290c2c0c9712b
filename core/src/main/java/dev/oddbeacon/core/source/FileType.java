package dev.oddbeacon.core.source;

import java.util.List;

/**
 * A language or format.
 *
 * @param name as it is written in queries
 * @param names of files: whole, {@code *.ending} or {@code start*}
 * @param interpreters that a first line {@code #!} may name
 */
public record FileType(String name, String title, List<String> names, List<String> interpreters) {}
