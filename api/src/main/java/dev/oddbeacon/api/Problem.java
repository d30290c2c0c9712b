package dev.oddbeacon.api;

/**
 * An error, as RFC 9457 has it.
 *
 * @param detail what is wrong and what to do
 * @param position where in the search text, in UTF-16 units from 0; null if that is not known
 */
public record Problem(String type, String title, int status, String detail, String instance, Integer position) {}
