package dev.oddbeacon.api;

/**
 * A repository that a work tree may belong to.
 *
 * @param reason in words: where it was recognised by
 */
public record Recognised(String repository, String reason) {}
