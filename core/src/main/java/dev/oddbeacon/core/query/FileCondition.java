package dev.oddbeacon.core.query;

import dev.oddbeacon.core.source.Trait;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * What is asked of files whatever their text: each condition decides itself, first for all files of a branch, then,
 * where that leaves it open, for one file after another; and says in words what it found.
 */
public sealed interface FileCondition extends Query {
    /** Evaluates the condition for all files of a branch at once. */
    default Truth of(BranchFacts branch) {
        return Truth.OPEN;
    }

    /** Whether it holds for a file. */
    boolean holds(FileFacts file);

    /** The property of the file that decides, in words: "its type is java". */
    String why(FileFacts.Explained file);

    /** Files of repositories whose name a glob matches. */
    record Repository(Glob name) implements FileCondition {
        public Repository(String glob) {
            this(Glob.ofName(glob));
        }

        @Override
        public Truth of(BranchFacts branch) {
            return Truth.of(name.matches(branch.repository()));
        }

        @Override
        public boolean holds(FileFacts file) {
            return name.matches(file.branch().repository());
        }

        @Override
        public String why(FileFacts.Explained file) {
            return "it is in " + file.branch().repository();
        }
    }

    /** Files of repositories with a label that a glob matches. */
    record Label(Glob label) implements FileCondition {
        public Label(String glob) {
            this(Glob.ofName(glob));
        }

        @Override
        public Truth of(BranchFacts branch) {
            return Truth.of(branch.labels().stream().anyMatch(label::matches));
        }

        @Override
        public boolean holds(FileFacts file) {
            return of(file.branch()) == Truth.YES;
        }

        @Override
        public String why(FileFacts.Explained file) {
            BranchFacts branch = file.branch();
            return branch.labels().isEmpty()
                    ? branch.repository() + " has no labels"
                    : branch.repository() + " is labelled " + FileFacts.told(branch.labels());
        }
    }

    /**
     * Files of branches and tags whose name a glob matches. Where nothing asks for one, default branches are searched.
     */
    record OnBranch(Glob name) implements FileCondition {
        public OnBranch(String glob) {
            this(Glob.ofName(glob));
        }

        @Override
        public Truth of(BranchFacts branch) {
            return branch.name().map(known -> Truth.of(name.matches(known))).orElse(Truth.OPEN);
        }

        @Override
        public boolean holds(FileFacts file) {
            return of(file.branch()) == Truth.YES;
        }

        @Override
        public String why(FileFacts.Explained file) {
            return "it is on " + file.branch().name().orElse("no branch");
        }
    }

    /** Files in a folder, or at a path. */
    record Under(Glob path) implements FileCondition {
        public Under(String glob) {
            this(Glob.ofPath(glob));
        }

        @Override
        public boolean holds(FileFacts file) {
            return path.matches(file.path());
        }

        @Override
        public String why(FileFacts.Explained file) {
            return "its path is " + file.path();
        }
    }

    /** Files whose type a glob matches. */
    record Type(Glob type) implements FileCondition {
        public Type(String glob) {
            this(Glob.ofName(glob));
        }

        @Override
        public boolean holds(FileFacts file) {
            return file.isOfType(this);
        }

        @Override
        public String why(FileFacts.Explained file) {
            return "its type is " + file.type();
        }
    }

    /** Files with a trait. @param label of the trait; nothing has one that does not exist */
    record HasTrait(String label) implements FileCondition {
        private static final Map<String, Integer> MASKS =
                Arrays.stream(Trait.values()).collect(Collectors.toMap(Trait::label, Trait::mask));

        @Override
        public boolean holds(FileFacts file) {
            return (file.traits() & MASKS.getOrDefault(label, 0)) != 0;
        }

        @Override
        public String why(FileFacts.Explained file) {
            Map<String, String> reasons = new TreeMap<>(file.reasonsOfTraits());
            return reasons.isEmpty()
                    ? "it has no traits"
                    : reasons.entrySet().stream()
                            .map(entry -> entry.getKey() + " (" + entry.getValue() + ")")
                            .collect(Collectors.joining(", "));
        }
    }

    /** Files that an exclusion set leaves in. */
    record Except(String set) implements FileCondition {
        @Override
        public boolean holds(FileFacts file) {
            return !file.isExcluded(set);
        }

        @Override
        public String why(FileFacts.Explained file) {
            return file.decisionOf(set);
        }
    }

    /**
     * These files and no others.
     *
     * @param files {@code repository/path}; not empty
     */
    record Listed(List<String> files) implements FileCondition {
        public Listed {
            if (files.isEmpty()) {
                throw new IllegalArgumentException("no files");
            }
            files = List.copyOf(files);
        }

        @Override
        public Truth of(BranchFacts branch) {
            String start = branch.repository() + "/";
            return files.stream().anyMatch(file -> file.startsWith(start)) ? Truth.OPEN : Truth.NO;
        }

        @Override
        public boolean holds(FileFacts file) {
            return file.isListed(this);
        }

        @Override
        public String why(FileFacts.Explained file) {
            return (holds(file) ? "it is one of " : "it is none of ")
                    + (files.size() == 1 ? "the one listed file" : "the " + files.size() + " listed files");
        }

        /** The paths that are listed of a repository. */
        public Set<String> pathsIn(String repository) {
            String start = repository + "/";
            Set<String> paths = new HashSet<>();
            files.stream()
                    .filter(file -> file.startsWith(start))
                    .forEach(file -> paths.add(file.substring(start.length())));
            return paths;
        }
    }

    /**
     * Files that were changed last from a day on, before a day, or both. Days are as {@link Days} reads them.
     *
     * @param after the first day that counts
     * @param before the first day that does not count any more
     */
    record Changed(Optional<String> after, Optional<String> before) implements FileCondition {
        public Changed {
            if (after.isEmpty() && before.isEmpty()) {
                throw new IllegalArgumentException("no bound");
            }
        }

        @Override
        public boolean holds(FileFacts file) {
            OptionalLong seconds = file.lastChange();
            return seconds.isPresent()
                    && after.map(day -> seconds.getAsLong()
                                    >= Days.start(day, file.now()).getEpochSecond())
                            .orElse(true)
                    && before.map(day -> seconds.getAsLong()
                                    < Days.start(day, file.now()).getEpochSecond())
                            .orElse(true);
        }

        @Override
        public String why(FileFacts.Explained file) {
            OptionalLong seconds = file.lastChange();
            return seconds.isEmpty()
                    ? "its last change is not known"
                    : "it was changed last on "
                            + LocalDate.ofInstant(Instant.ofEpochSecond(seconds.getAsLong()), ZoneOffset.UTC);
        }
    }

    /**
     * Files of more than so many bytes, of fewer, or both.
     *
     * @param over bytes of which a file must have more
     * @param under bytes of which a file must have fewer
     */
    record Size(OptionalLong over, OptionalLong under) implements FileCondition {
        public Size {
            if (over.isEmpty() && under.isEmpty()) {
                throw new IllegalArgumentException("no bound");
            }
        }

        @Override
        public boolean holds(FileFacts file) {
            OptionalLong bytes = file.bytes();
            return bytes.isPresent()
                    && (over.isEmpty() || bytes.getAsLong() > over.getAsLong())
                    && (under.isEmpty() || bytes.getAsLong() < under.getAsLong());
        }

        @Override
        public String why(FileFacts.Explained file) {
            OptionalLong bytes = file.bytes();
            return bytes.isEmpty()
                    ? "its size is not known"
                    : "it has " + String.format("%,d", bytes.getAsLong()) + " bytes";
        }
    }
}
