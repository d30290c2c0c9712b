package dev.oddbeacon.server;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;

/** Prints a port of loopback that nobody listens on; for the launcher, which starts MariaDB on it. */
final class FreePort {
    private FreePort() {}

    public static void main(String[] arguments) throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            System.out.println(socket.getLocalPort());
        }
    }
}
