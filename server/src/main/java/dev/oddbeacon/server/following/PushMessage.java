package dev.oddbeacon.server.following;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.json.JsonMapper;

/**
 * A message about a push. There are many shapes; what they share is that one of their texts is the address of the
 * repository.
 */
final class PushMessage {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final int LONGEST = 2_000; // characters of an address
    private static final int MOST = 10_000;

    private PushMessage() {}

    /** The texts of a message that may be addresses. @return empty if it is not JSON */
    static Optional<Set<String>> texts(byte[] message) {
        Set<String> texts = new HashSet<>();
        try (JsonParser parser = JSON.createParser(message)) {
            for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                if (token == JsonToken.VALUE_STRING && texts.size() < MOST && mayBeAddress(parser.getString())) {
                    texts.add(parser.getString());
                }
            }
            return Optional.of(texts);
        } catch (JacksonException e) {
            return Optional.empty();
        }
    }

    private static boolean mayBeAddress(String text) {
        return text.length() <= LONGEST
                && text.indexOf('/') >= 0
                && text.chars().noneMatch(Character::isISOControl);
    }
}
