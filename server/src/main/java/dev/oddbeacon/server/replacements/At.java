package dev.oddbeacon.server.replacements;

/** Where a branch of a repository is. */
record At(String repository, String branch, String commit) {}
