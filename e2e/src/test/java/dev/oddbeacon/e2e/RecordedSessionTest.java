package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** That what is not as the specification says is seen. */
class RecordedSessionTest {
    private static final String STARTED = "{'jsonrpc':'2.0','id':1,'result':{'capabilities':{}}}";

    private static byte[] framed(String... messages) {
        StringBuilder framed = new StringBuilder();
        for (String message : messages) {
            String json = message.replace('\'', '"');
            framed.append("Content-Length: ")
                    .append(json.getBytes(StandardCharsets.UTF_8).length)
                    .append("\r\n\r\n")
                    .append(json);
        }
        return framed.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static List<JsonNode> editor() {
        return RecordedSession.messages(framed(
                "{'jsonrpc':'2.0','id':1,'method':'initialize','params':{}}",
                "{'jsonrpc':'2.0','id':2,'method':'shutdown'}",
                "{'jsonrpc':'2.0','method':'exit'}"));
    }

    private static void check(String... ofServer) {
        RecordedSession.assertThatItIsAsSpecified(editor(), RecordedSession.messages(framed(ofServer)), true);
    }

    @Test
    void aSessionAsItShouldBeIsTaken() {
        check(
                STARTED,
                "{'jsonrpc':'2.0','method':'window/logMessage','params':{'type':3,'message':'Tür'}}",
                "{'jsonrpc':'2.0','id':2,'result':null}");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            {'jsonrpc':'2.0','id':2,'result':null,'error':{'code':1,'message':'x'}} | a result or an error
            {'jsonrpc':'2.0','id':2} | a result or an error
            {'jsonrpc':'2.0','id':3,'result':null} | what
            {'jsonrpc':'1.0','id':2,'result':null} | 2.0
            {'jsonrpc':'2.0','id':1,'result':null} | what
            {'jsonrpc':'2.0','method':'own/message'} | what servers send
            {'jsonrpc':'2.0','method':'window/logMessage'} | requests without an answer
            {'jsonrpc':'2.0','id':2,'result':{'start':{'line':2,'character':0},'end':{'line':1,'character':9}}} | start
            {'jsonrpc':'2.0','id':2,'result':{'start':{'line':-1,'character':0},'end':{'line':1,'character':9}}} | -1
            {'jsonrpc':'2.0','method':'textDocument/publishDiagnostics','params':{'diagnostics':[{'message':'x'}]}} |
            """)
    void whatIsNotIsSeen(String message, String why) {
        assertThatThrownBy(() -> check(STARTED, message))
                .isInstanceOf(AssertionError.class)
                .hasMessageContaining(why == null ? "" : why);
    }

    @Test
    void nothingIsSaidBeforeItIsInitialized() {
        assertThatThrownBy(() -> check(
                        "{'jsonrpc':'2.0','method':'textDocument/publishDiagnostics','params':{'diagnostics':[]}}",
                        STARTED))
                .hasMessageContaining("before it is initialized");
    }

    @Test
    void nothingStandsBetweenMessages() {
        byte[] bytes =
                ("Hello\r\n" + new String(framed(STARTED), StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> RecordedSession.messages(bytes)).isInstanceOf(AssertionError.class);
        List<JsonNode> cut = new ArrayList<>(RecordedSession.messages(java.util.Arrays.copyOf(framed(STARTED), 40)));
        assertThat(cut).as("a session that was cut off").isEmpty();
    }
}
