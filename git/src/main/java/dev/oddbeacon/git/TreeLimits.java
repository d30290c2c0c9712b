package dev.oddbeacon.git;

import dev.oddbeacon.core.ingest.TreeTooLargeException;
import java.nio.charset.StandardCharsets;
import org.eclipse.jgit.treewalk.TreeWalk;

/**
 * How much of a tree is read. A few small objects can stand for more paths than anybody has room for: a folder that
 * stands ten times in another, and that ten times in the next.
 */
final class TreeLimits {
    private static final int MOST_FILES = 1_000_000;
    private static final int DEEPEST = 256;
    private static final int LONGEST_PATH = 4_096; // bytes, what systems take

    private int files;

    /** @throws TreeTooLargeException if a file is one too many, or its path is too long */
    void file(TreeWalk walk) throws TreeTooLargeException {
        if (++files > MOST_FILES) {
            throw new TreeTooLargeException("It has more than " + MOST_FILES + " files, the most that are indexed.");
        }
        if (walk.getPathLength() > LONGEST_PATH) {
            throw new TreeTooLargeException("A path has more than " + LONGEST_PATH
                    + " bytes, the longest that are indexed. It begins with " + start(walk) + ".");
        }
    }

    /** @throws TreeTooLargeException if a folder lies too deep to be entered */
    void folder(TreeWalk walk) throws TreeTooLargeException {
        if (walk.getDepth() >= DEEPEST) {
            throw new TreeTooLargeException("Its folders are nested more than " + DEEPEST
                    + " deep, the deepest that are indexed. The path begins with " + start(walk) + ".");
        }
    }

    private static String start(TreeWalk walk) {
        byte[] path = walk.getRawPath();
        return new String(path, 0, Math.min(60, path.length), StandardCharsets.UTF_8);
    }
}
