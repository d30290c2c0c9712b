package dev.oddbeacon.server.replacements;

/** A file, by the number of its branch and its own. */
record InBranch(int branchNumber, int file) {}
