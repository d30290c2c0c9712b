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
 * Results of one saved search as a log that pipelines read: SARIF 2.1.0, of OASIS. Each repository is a base of addresses of
 * its own, with the commit that was searched.
 */
public final class SarifLog {
    private static final String SCHEMA =
            "https://docs.oasis-open.org/sarif/sarif/v2.1.0/os/schemas/sarif-schema-2.1.0.json";
    private static final String UNRESERVED = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-._~/";

    private SarifLog() {}

    /**
     * @param version of this program
     * @param rule the name of the search
     * @param description what it is for; may be empty
     * @param locations of a repository, by its name, as an address; empty if it has none
     */
    public static Map<String, Object> of(
            String version,
            String rule,
            String description,
            List<Result> results,
            Function<String, Optional<String>> locations) {
        String about = description.isEmpty() ? "Something new matches the saved search " + rule : description;
        Map<String, Object> driver = map(
                "name",
                "oddbeacon",
                "semanticVersion",
                version,
                "rules",
                List.of(map("id", rule, "shortDescription", map("text", about))));
        Map<String, Object> bases = new TreeMap<>();
        Map<List<String>, Object> provenance = new LinkedHashMap<>();
        for (Result result : results) {
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
        run.put(
                "results",
                results.stream().map(result -> result(rule, about, result)).toList());
        return map("$schema", SCHEMA, "version", "2.1.0", "runs", List.of(run));
    }

    private static Map<String, Object> result(String rule, String about, Result result) {
        Map<String, Object> told = map(
                "ruleId",
                rule,
                "ruleIndex",
                0,
                "level",
                "warning",
                "message",
                map("text", message(about, result)),
                "baselineState",
                "new",
                "partialFingerprints",
                map("oddbeaconText/v1", fingerprint(rule, result)));
        if (result.path() != null) {
            Map<String, Object> physical =
                    map("artifactLocation", map("uri", encoded(result.path()), "uriBaseId", result.repository()));
            if (result.line() != null) {
                physical.put("region", map("startLine", result.line(), "snippet", map("text", result.text())));
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
