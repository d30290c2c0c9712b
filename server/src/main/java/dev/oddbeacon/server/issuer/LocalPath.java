package dev.oddbeacon.server.issuer;

/** Where somebody goes after signing in: to a page of this service, wherever a link wanted to lead. */
final class LocalPath {
    private static final int LONGEST = 4_000;

    private LocalPath() {}

    /** The start page instead of what is no path of this service. */
    static String of(String wanted) {
        boolean isPath = wanted != null
                && wanted.length() <= LONGEST
                && wanted.startsWith("/")
                && !wanted.startsWith("//")
                && !wanted.startsWith("/api/")
                && !wanted.startsWith("/sign-in")
                && wanted.chars().allMatch(c -> c > ' ' && c < 0x7f && c != '\\');
        return isPath ? wanted : "/";
    }
}
