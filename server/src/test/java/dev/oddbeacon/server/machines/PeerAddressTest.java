package dev.oddbeacon.server.machines;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.BindException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PeerAddressTest {
    @ParameterizedTest
    @CsvSource({
        "10.0.0.2, 10.0.0.2, 0",
        "10.0.0.2:7450, 10.0.0.2, 7450",
        "pier-2.quillhaven.example:7441, pier-2.quillhaven.example, 7441",
        "fd00::2, fd00::2, 0",
        "[fd00::2], fd00::2, 0",
        "[fd00::2]:7441, fd00::2, 7441"
    })
    void isReadAsItIsWritten(String text, String host, int port) {
        PeerAddress read = PeerAddress.parse(text).orElseThrow();
        assertThat(read).isEqualTo(new PeerAddress(host, port));
        if (port > 0) {
            assertThat(PeerAddress.parse(read.toString())).contains(read);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", ":7441", "pier-2:", "pier-2:0", "pier-2:65536", "pier-2:tide", "[]:7441"})
    void whatIsNoneIsNotRead(String text) {
        assertThat(PeerAddress.parse(text)).isEmpty();
    }

    /** A port that was free; machines of other tests may take it at the same moment. */
    private static ServerSocket taken() throws IOException {
        while (true) {
            PeerAddress free = new PeerAddress("127.0.0.1", 0).withPort();
            ServerSocket socket = new ServerSocket();
            try {
                socket.bind(new InetSocketAddress(free.host(), free.port()));
                return socket;
            } catch (BindException e) {
                socket.close();
            }
        }
    }

    @Test
    void takesTheNextPortThatIsFree() throws IOException {
        try (ServerSocket taken = taken()) {
            assertThat(taken.getLocalPort()).isGreaterThanOrEqualTo(PeerAddress.FIRST);
            assertThat(new PeerAddress("127.0.0.1", 0).withPort().port())
                    .isGreaterThanOrEqualTo(PeerAddress.FIRST)
                    .isNotEqualTo(taken.getLocalPort());
        }
        assertThat(new PeerAddress("127.0.0.1", 9).withPort().port())
                .as("as it is told")
                .isEqualTo(9);
    }
}
