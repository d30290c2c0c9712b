package dev.oddbeacon.client.options;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;

/** A file given as REPO:PATH[@REV]. A repository's name has neither colon nor slash, so the first of them ends it. */
public record FileName(String repository, String path, String revision) {
    /** A file, or a repository as a whole: REPO[@REV]. */
    public static FileName parseAny(String text, String revision) {
        if (text.indexOf(':') >= 0 || text.indexOf('/') >= 0) {
            return text.endsWith(":") || text.indexOf('/') == text.length() - 1
                    ? new FileName(text.substring(0, text.length() - 1), "", revision == null ? "" : revision)
                    : parse(text, revision);
        }
        int at = text.indexOf('@');
        return at < 0 || revision != null
                ? new FileName(text, "", revision == null ? "" : revision)
                : new FileName(text.substring(0, at), "", text.substring(at + 1));
    }

    public static FileName parse(String text, String revision) {
        int colon = text.indexOf(':');
        int slash = text.indexOf('/');
        int end = colon < 0 ? slash : slash < 0 ? colon : Math.min(colon, slash);
        if (end <= 0 || end == text.length() - 1) {
            throw new ServiceProblem(
                    "\"" + text + "\" does not name a file. Write REPO:PATH, for example fare-gate:README.md.",
                    ExitStatus.WRONG);
        }
        String path = text.substring(end + 1);
        int at = path.lastIndexOf('@');
        if (revision != null || at <= 0) {
            return new FileName(text.substring(0, end), path, revision == null ? "" : revision);
        }
        return new FileName(text.substring(0, end), path.substring(0, at), path.substring(at + 1));
    }
}
