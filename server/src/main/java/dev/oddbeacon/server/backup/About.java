package dev.oddbeacon.server.backup;

import java.time.Instant;
import java.util.List;
import java.util.Map;

/**
 * What a backup says of itself, in {@code about.json}.
 *
 * @param format of the backup, a number that grows
 * @param taken when
 * @param schema number of the last migration of the records
 * @param rows of each table
 * @param files with their checksums; paths are relative to the backup
 * @param kept names of repositories whose mirror is in it, because they could not be fetched from
 */
record About(int format, Instant taken, String schema, Map<String, Long> rows, List<Part> files, List<String> kept) {
    static final int FORMAT = 1;
    static final String FILE = "about.json";
    static final String RECORDS = "records";
    static final String KEY = "secret-key";

    /** A file. @param sha256 in hexadecimal digits */
    record Part(String path, long bytes, String sha256) {}
}
