package dev.oddbeacon.server;

import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.ThrowableProxyUtil;
import org.springframework.boot.json.JsonWriter;
import org.springframework.boot.logging.structured.JsonWriterStructuredLogFormatter;

/**
 * The log as JSON lines: {@code time} (ISO 8601), {@code level}, {@code logger}, {@code thread}, {@code message};
 * {@code request} where the line is about one, {@code error} with the stack where something failed. The framework makes
 * it, by its name.
 */
public final class JsonLogLines extends JsonWriterStructuredLogFormatter<ILoggingEvent> {
    public JsonLogLines() {
        super(JsonLogLines::members, null);
    }

    private static void members(JsonWriter.Members<ILoggingEvent> members) {
        members.add("time", ILoggingEvent::getInstant);
        members.add("level", event -> event.getLevel().toString());
        members.add("logger", ILoggingEvent::getLoggerName);
        members.add("thread", ILoggingEvent::getThreadName);
        members.add("request", event -> event.getMDCPropertyMap().get("request"))
                .whenNotNull();
        members.add("message", ILoggingEvent::getFormattedMessage);
        members.add("error", ILoggingEvent::getThrowableProxy).whenNotNull().as(ThrowableProxyUtil::asString);
    }
}
