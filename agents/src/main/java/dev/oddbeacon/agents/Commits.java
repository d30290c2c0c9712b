package dev.oddbeacon.agents;

import dev.oddbeacon.api.CommitInfo;

/** Commits in words. */
final class Commits {
    private Commits() {}

    static String line(Links links, CommitInfo commit) {
        return commit.repository() + " " + Links.id(commit.id()) + " "
                + commit.committed().toLocalDate() + " " + commit.author().name() + ": " + commit.summary() + "   "
                + links.commit(commit.repository(), commit.id());
    }
}
