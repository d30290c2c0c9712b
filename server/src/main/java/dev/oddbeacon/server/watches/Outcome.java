package dev.oddbeacon.server.watches;

/** What became of an attempt to deliver a message. @param answer in words */
record Outcome(boolean isSent, String answer) {}
