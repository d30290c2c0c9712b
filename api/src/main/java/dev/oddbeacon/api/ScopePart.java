package dev.oddbeacon.api;

import java.util.Arrays;
import java.util.Optional;

/**
 * The parts of a scope, which says where a search looks: the one table from which the parameters over HTTP, the options
 * of the client, the clauses of expressions, the second looks and the types of the console are made. Several values of
 * one part mean or; different parts mean and.
 */
public enum ScopePart {
    REPO(
            "repo",
            "--repo",
            "GLOB",
            "repo",
            "glob for names of repositories",
            "Only repositories with such a name.",
            "in all repositories"),
    LABEL(
            "label",
            "--label",
            "GLOB",
            "label",
            "glob for labels of repositories",
            "Only repositories with such a label.",
            "whatever the label"),
    BRANCH(
            "branch",
            "--branch",
            "GLOB",
            "branch",
            "glob for branches and tags; without it each repository's default branch",
            "Indexed branches or tags with such a name; without it each repository's default branch.",
            "on the default branches"),
    UNDER(
            "under",
            "--under",
            "GLOB",
            "under",
            "glob for folders or files; with a slash from the root of the repository",
            "Only below such folders, or such files: with a slash from the repository's root, without one at any depth.",
            "in all folders"),
    NOT_UNDER(
            "notUnder",
            "--not-under",
            "GLOB",
            "not under",
            "glob for folders or files that are left out",
            "Not below such folders, nor such files.",
            "with no folder left out"),
    TYPE(
            "type",
            "--type",
            "T",
            "type",
            "type of files, as /api/v1/types lists them",
            "Only files of such a type: java, yaml, ...; oddbeacon types lists them.",
            "in files of all types"),
    TRAIT(
            "trait",
            "--trait",
            "T",
            "trait",
            "trait of files: test, generated, vendored, translation, documentation, configuration, minified, binary",
            "Only files of such a trait: test, generated, vendored, translation, documentation, configuration, minified, binary.",
            "whatever the trait"),
    NOT_TRAIT(
            "notTrait",
            "--not-trait",
            "T",
            "not trait",
            "trait of files that are left out",
            "No files of such a trait.",
            "with no trait left out"),
    EXCEPT(
            "except",
            "--except",
            "SET",
            "except",
            "name of an exclusion set whose files are left out",
            "No files that such an exclusion set takes out; oddbeacon sets list shows them.",
            "without the exclusion set"),
    /** Takes exclusion sets away that apply by default; no expression says so. */
    LIFT(
            "lift",
            "--lift",
            "SET",
            "",
            "name of an exclusion set that is applied by default, but not to this search",
            "An exclusion set that applies by default, but not this time.",
            "with all exclusion sets that apply by default"),
    /** Listed files, as repository/path. */
    FILE(
            "file",
            "--files-from",
            "FILE|-",
            "files",
            "a file, as repository/path: only listed ones; at most 10000",
            "Only the files that FILE, or standard input, lists: repository/path, or with --here local paths, a line each, or with zero bytes between.",
            "in all files"),
    CHANGED_AFTER(
            "changedAfter",
            "--changed",
            "DAY",
            "changed",
            "files whose last change was on that day or later: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago",
            "Only files whose last change was on that day or later: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago.",
            "whenever they were changed"),
    CHANGED_BEFORE(
            "changedBefore",
            "--changed-before",
            "DAY",
            "changed",
            "files whose last change was before that day",
            "Only files whose last change was before that day.",
            "whenever they were changed"),
    /** Parts of files: code, comment, string. They limit text, not files. */
    REGION(
            "region",
            "--region",
            "code|comment|string",
            "code",
            "code, comment or string: text that stands wholly in such a part of a file",
            "Only text that stands wholly in such a part of a file.",
            "in code, comments and strings alike"),
    NOT_REGION(
            "notRegion",
            "--not-region",
            "code|comment|string",
            "outside",
            "code, comment or string: no text that stands there",
            "No text that stands in such a part of a file.",
            "with no part of files left out");

    private final String parameter;
    private final String option;
    private final String placeholder;
    private final String clause;
    private final String description;
    private final String help;
    private final String lifted;

    ScopePart(
            String parameter,
            String option,
            String placeholder,
            String clause,
            String description,
            String help,
            String lifted) {
        this.parameter = parameter;
        this.option = option;
        this.placeholder = placeholder;
        this.clause = clause;
        this.description = description;
        this.help = help;
        this.lifted = lifted;
    }

    /** Its name over HTTP and in the console. */
    public String parameter() {
        return parameter;
    }

    /** The option of the client, with its dashes. */
    public String option() {
        return option;
    }

    /** Placeholder of a value in the client's help. */
    public String placeholder() {
        return placeholder;
    }

    /** The clause of an expression that says the same; empty if there is none. */
    public String clause() {
        return clause;
    }

    /** Description for readers of the HTTP interface. */
    public String description() {
        return description;
    }

    /** Description for readers of the client's help. */
    public String help() {
        return help;
    }

    /** Describes a search without this part, in words. */
    public String lifted() {
        return lifted;
    }

    /** Whether a file must pass all of its values, rather than one of them. */
    public boolean isForAll() {
        return switch (this) {
            case NOT_UNDER, NOT_TRAIT, EXCEPT, NOT_REGION -> true;
            case REPO, LABEL, BRANCH, UNDER, TYPE, TRAIT, LIFT, FILE, CHANGED_AFTER, CHANGED_BEFORE, REGION -> false;
        };
    }

    /** The part that a parameter over HTTP is for. */
    public static Optional<ScopePart> of(String parameter) {
        return Arrays.stream(values())
                .filter(part -> part.parameter.equals(parameter))
                .findFirst();
    }
}
