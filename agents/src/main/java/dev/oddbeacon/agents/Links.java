package dev.oddbeacon.agents;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;

/** Links into the console that stay right: they name the commit. */
record Links(String console) {
    private static final int DIGITS = 12;

    static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    /** As many digits of a commit as tell it from others. */
    static String id(String commit) {
        return commit.substring(0, Math.min(DIGITS, commit.length()));
    }

    /** @param line from 1; 0 for the whole file */
    String file(String repository, String path, String commit, int line) {
        return console + "file?in=" + encoded(repository) + "&path="
                + encoded(path).replace("%2F", "/") + "&rev=" + id(commit) + (line > 0 ? "&line=" + line : "");
    }

    String commit(String repository, String commit) {
        return console + "commit?in=" + encoded(repository) + "&id=" + id(commit);
    }
}
