package dev.oddbeacon.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** An address that leads to a service until it is cut, and again once it is mended. */
final class Forwarder implements AutoCloseable {
    private final URI service;
    private final int port;
    private ServerSocket listening;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();

    Forwarder(String service) throws IOException {
        this.service = URI.create(service);
        this.listening = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        this.port = listening.getLocalPort();
        accept(listening);
    }

    String address() {
        return "http://127.0.0.1:" + port;
    }

    private void accept(ServerSocket from) {
        Thread.startVirtualThread(() -> {
            try {
                while (true) {
                    Socket here = from.accept();
                    Socket there = new Socket(service.getHost(), service.getPort());
                    open.add(here);
                    open.add(there);
                    pass(here, there);
                    pass(there, here);
                }
            } catch (IOException e) {
                // it was cut
            }
        });
    }

    private static void pass(Socket from, Socket to) {
        Thread.startVirtualThread(() -> {
            try (InputStream in = from.getInputStream();
                    OutputStream out = to.getOutputStream()) {
                in.transferTo(out);
            } catch (IOException e) {
                // one of them has ended
            }
        });
    }

    void cut() throws IOException {
        listening.close();
        for (Socket socket : open) {
            socket.close();
        }
        open.clear();
    }

    void mend() throws IOException {
        listening = new ServerSocket(port, 50, InetAddress.getLoopbackAddress());
        accept(listening);
    }

    @Override
    public void close() throws IOException {
        cut();
    }
}
