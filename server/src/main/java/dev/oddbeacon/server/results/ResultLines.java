package dev.oddbeacon.server.results;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.server.web.BadRequestException;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** Results as JSON lines, one on each, and as those are kept: compressed. */
public final class ResultLines {
    private ResultLines() {}

    public static String write(List<Result> results) {
        StringBuilder lines = new StringBuilder();
        for (Result result : results) {
            lines.append(JsonMapper.shared().writeValueAsString(result)).append('\n');
        }
        return lines.toString();
    }

    /** @throws BadRequestException if a line is none */
    public static List<Result> read(String lines) {
        List<Result> results = new ArrayList<>();
        int number = 0;
        for (String line : lines.lines().toList()) {
            number++;
            if (line.isBlank()) {
                continue;
            }
            try {
                Result result = JsonMapper.shared().readValue(line, Result.class);
                if (result.repository() == null || result.commit() == null) {
                    throw wrong(number);
                }
                results.add(result);
            } catch (JacksonException e) {
                throw wrong(number);
            }
        }
        return results;
    }

    private static BadRequestException wrong(int line) {
        return new BadRequestException(
                "Line " + line
                        + " is no result. Each line is a JSON object with repository, commit, path, line and text, as GET …/results answers.");
    }

    public static byte[] compress(List<Result> results) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(bytes)) {
            out.write(write(results).getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    public static List<Result> decompress(byte[] kept) {
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(kept))) {
            return read(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
