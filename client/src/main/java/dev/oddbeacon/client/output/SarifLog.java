package dev.oddbeacon.client.output;

import dev.oddbeacon.api.Result;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;

/**
 * Results of one search as a log that pipelines read: SARIF 2.1.0, of OASIS. Each repository is a base of addresses of
 * its own, with the commit that was searched.
 */
public final class SarifLog {
    private static final String SCHEMA =
            "https://docs.oasis-open.org/sarif/sarif/v2.1.0/os/schemas/sarif-schema-2.1.0.json";
    private static final String UNRESERVED = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-._~/";

    private SarifLog() {}

    /**
     * A result, and where on its line it is.
     *
     * @param column of the first match, from 1, in UTF-16 units; 0 if that is not known
     * @param endColumn behind its last character
     */
    public record Found(Result result, int column, int endColumn) {
        public static Found of(Result result) {
            return new Found(result, 0, 0);
        }
    }

    /**
     * What was looked for.
     *
     * @param rule the name of the search, or its subject
     * @param about what it is for, in words
     * @param isNew whether the results have come since an earlier look, and somebody should act on them
     */
    public record Looked(String rule, String about, boolean isNew) {}

    /**
     * @param version of this program
     * @param locations of a repository, by its name, as an address; empty if it has none
     */
    public static Map<String, Object> of(
            String version, Looked looked, List<Found> found, Function<String, Optional<String>> locations) {
        Map<String, Object> driver = map(
                "name",
                "oddbeacon",
                "semanticVersion",
                version,
                "rules",
                List.of(map("id", looked.rule, "shortDescription", map("text", looked.about))));
        Map<String, Object> bases = new TreeMap<>();
        Map<List<String>, Object> provenance = new LinkedHashMap<>();
        for (Found one : found) {
            Result result = one.result;
            if (result.path() == null) {
                continue;
            }
            bases.computeIfAbsent(
                    result.repository(), name -> map("description", map("text", "The repository " + name)));
            provenance.computeIfAbsent(
                    List.of(result.repository(), result.branch()),
                    _ -> locations
                            .apply(result.repository())
                            .map(address -> map(
                                    "repositoryUri",
                                    address,
                                    "revisionId",
                                    result.commit(),
                                    "branch",
                                    result.branch(),
                                    "mappedTo",
                                    map("uriBaseId", result.repository())))
                            .orElse(null));
        }
        Map<String, Object> run = map("tool", map("driver", driver));
        if (!bases.isEmpty()) {
            run.put("originalUriBaseIds", bases);
        }
        List<Object> known =
                provenance.values().stream().filter(Objects::nonNull).toList();
        if (!known.isEmpty()) {
            run.put("versionControlProvenance", known);
        }
        run.put("columnKind", "utf16CodeUnits");
        run.put("results", found.stream().map(one -> result(looked, one)).toList());
        return map("$schema", SCHEMA, "version", "2.1.0", "runs", List.of(run));
    }

    private static Map<String, Object> result(Looked looked, Found found) {
        Result result = found.result;
        Map<String, Object> told = map(
                "ruleId",
                looked.rule,
                "ruleIndex",
                0,
                "level",
                looked.isNew ? "warning" : "note",
                "message",
                map("text", message(looked.about, result)),
                "partialFingerprints",
                map("oddbeaconText/v1", fingerprint(looked.rule, result)));
        if (looked.isNew) {
            told.put("baselineState", "new");
        }
        if (result.path() != null) {
            Map<String, Object> physical =
                    map("artifactLocation", map("uri", encoded(result.path()), "uriBaseId", result.repository()));
            if (result.line() != null) {
                Map<String, Object> region = map("startLine", result.line());
                if (found.column > 0) {
                    region.put("startColumn", found.column);
                    region.put("endColumn", found.endColumn);
                }
                region.put("snippet", map("text", result.text()));
                physical.put("region", region);
            }
            told.put("locations", List.of(map("physicalLocation", physical)));
        }
        return told;
    }

    private static String message(String about, Result result) {
        if (result.path() == null) {
            return about + ": commit " + result.commit() + " of " + result.repository() + ", " + result.text();
        }
        return about + (result.text() == null ? "" : ": " + result.text().strip());
    }

    /** The same for a line that moves. */
    private static String fingerprint(String rule, Result result) {
        String text = String.join(
                "\n",
                rule,
                result.repository(),
                Objects.requireNonNullElse(result.path(), result.commit()),
                Objects.requireNonNullElse(result.text(), "").strip());
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest, 0, 16);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A path as a relative address, RFC 3986. */
    private static String encoded(String path) {
        StringBuilder encoded = new StringBuilder();
        for (byte each : path.getBytes(StandardCharsets.UTF_8)) {
            if (each > 0 && UNRESERVED.indexOf(each) >= 0) {
                encoded.append((char) each);
            } else {
                encoded.append(String.format("%%%02X", each));
            }
        }
        return encoded.toString();
    }

    /** @param pairs names and values in turn */
    private static Map<String, Object> map(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put((String) pairs[i], pairs[i + 1]);
        }
        return map;
    }
}
