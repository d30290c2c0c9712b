package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/**
 * Where to look. Several values of one limit mean or, different limits mean and; an empty list does not limit.
 *
 * @param repositories globs for names
 * @param labels globs for labels
 * @param branches globs for branches and tags; without one each repository's default branch is searched
 * @param under globs for paths, see {@link Glob#ofPath}
 */
public record Scope(List<String> repositories, List<String> labels, List<String> branches, List<String> under) {
    public static final Scope EVERYTHING = new Scope(List.of(), List.of(), List.of(), List.of());

    public Scope {
        repositories = List.copyOf(repositories);
        labels = List.copyOf(labels);
        branches = List.copyOf(branches);
        under = List.copyOf(under);
    }

    /** A scope that is resolved against a view. Immutable. */
    public static final class Selection {
        private final View view;
        private final boolean[] ranks;
        private final List<Glob> under;

        private Selection(View view, boolean[] ranks, List<Glob> under) {
            this.view = view;
            this.ranks = ranks;
            this.under = under;
        }

        public boolean holdsBranch(int rank) {
            return ranks[rank];
        }

        /** Whether a file is in the scope, its branch given that it is. */
        boolean holdsFile(int rank, int file) {
            return under.isEmpty() || holdsPath(view.snapshot(rank).path(file));
        }

        boolean holdsPath(String path) {
            return under.isEmpty() || under.stream().anyMatch(glob -> glob.matches(path));
        }

        /** How many repositories are in the scope. */
        public int repositories() {
            int count = 0;
            String before = "";
            for (int rank = 0; rank < ranks.length; rank++) {
                String repository = view.branch(rank).repository();
                if (ranks[rank] && !repository.equals(before)) {
                    count++;
                    before = repository;
                }
            }
            return count;
        }
    }

    /** Whether a repository is in the scope, whatever its branches. */
    public boolean holdsRepository(String name, Collection<String> itsLabels) {
        return matches(repositories, List.of(name)) && matches(labels, itsLabels);
    }

    private static boolean matches(List<String> globs, Collection<String> texts) {
        return globs.isEmpty() || globs.stream().map(Glob::ofName).anyMatch(glob -> texts.stream().anyMatch(glob::matches));
    }

    /** @throws InvalidQueryException if a branch is named that no repository of the scope has */
    public Selection select(View view) {
        List<Glob> branchGlobs = branches.stream().map(Glob::ofName).toList();
        boolean[] ranks = new boolean[view.branches().size()];
        boolean any = false;
        for (int rank = 0; rank < ranks.length; rank++) {
            Branch branch = view.branch(rank);
            boolean onBranch = branches.isEmpty() ? branch.isDefault() : branchGlobs.stream().anyMatch(glob -> glob.matches(branch.name()));
            ranks[rank] = onBranch && holdsRepository(branch.repository(), branch.labels());
            any |= ranks[rank];
        }
        if (!any && !branches.isEmpty()) {
            throw new InvalidQueryException("No repository of this scope has an indexed branch or tag " + String.join(" or ", branches)
                    + ". The page of repositories lists the indexed ones; add others there.", InvalidQueryException.NOWHERE);
        }
        List<Glob> globs = new ArrayList<>();
        under.forEach(pattern -> globs.add(Glob.ofPath(pattern)));
        return new Selection(view, ranks, globs);
    }
}
