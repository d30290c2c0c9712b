package dev.oddbeacon.server.machines;

import dev.oddbeacon.server.CannotStartException;
import dev.oddbeacon.server.Settings;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.ServerSocket;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.util.Optional;

/**
 * Where the other machines reach this one.
 *
 * @param host a name or an address of this machine
 * @param port 0 for the first free one of a hundred from {@link #FIRST} on
 */
record PeerAddress(String host, int port) {
    static final int FIRST = 7441;
    private static final int TRIED = 100;

    /** @throws CannotStartException if it is no address of this machine */
    static PeerAddress of(Settings settings) {
        String text = settings.cluster().peerAddress();
        PeerAddress address = text.isEmpty()
                ? new PeerAddress(settings.listen(), 0)
                : parse(text).orElseThrow(() -> new CannotStartException(unreadable(text)));
        if (!isOwn(address.host)) {
            throw new CannotStartException("The other machines cannot reach this one at " + address.host
                    + ". Name an address that it has on a private network: --peer-address HOST.");
        }
        return address;
    }

    private static String unreadable(String text) {
        return "--peer-address is \"" + text + "\". Give HOST or HOST:PORT, an address of this machine.";
    }

    private static boolean isOwn(String host) {
        try {
            InetAddress address = InetAddress.getByName(host);
            return !address.isAnyLocalAddress() && NetworkInterface.getByInetAddress(address) != null;
        } catch (UnknownHostException | SocketException e) {
            return false;
        }
    }

    /** An address as it is written, with brackets around an IPv6 one that has a port. */
    static Optional<PeerAddress> parse(String text) {
        int colon = text.lastIndexOf(':');
        boolean hasPort = colon >= 0 && (text.indexOf(':') == colon || text.charAt(colon - 1) == ']');
        String host = hasPort ? text.substring(0, colon) : text;
        boolean isBracketed = host.startsWith("[") && host.endsWith("]");
        String bare = isBracketed ? host.substring(1, host.length() - 1) : host;
        if (bare.isBlank()) {
            return Optional.empty();
        }
        try {
            int port = hasPort ? Integer.parseUnsignedInt(text.substring(colon + 1)) : 0;
            return Optional.of(new PeerAddress(bare, port)).filter(read -> !hasPort || port > 0 && port < 1 << 16);
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }

    /** This one with a port that is free now. */
    PeerAddress withPort() throws IOException {
        if (port > 0) {
            return this;
        }
        for (int tried = FIRST; tried < FIRST + TRIED; tried++) {
            try (ServerSocket socket = new ServerSocket()) {
                socket.bind(new InetSocketAddress(host, tried));
                return new PeerAddress(host, tried);
            } catch (IOException e) {
                // the next one
            }
        }
        throw new IOException("no port from " + FIRST + " to " + (FIRST + TRIED - 1) + " is free on " + host);
    }

    @Override
    public String toString() {
        return (host.contains(":") ? "[" + host + "]" : host) + ":" + port;
    }
}
