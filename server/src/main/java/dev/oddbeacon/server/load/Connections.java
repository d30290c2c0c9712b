package dev.oddbeacon.server.load;

import dev.oddbeacon.server.Settings;
import java.nio.channels.SocketChannel;
import java.time.Duration;
import java.util.Set;
import org.apache.coyote.AbstractProcessor;
import org.apache.coyote.Constants;
import org.apache.coyote.http11.Http11NioProtocol;
import org.apache.tomcat.util.net.NioChannel;
import org.apache.tomcat.util.net.NioEndpoint;
import org.apache.tomcat.util.net.SocketWrapperBase;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * Limits of connections, by address and in all, and of the time that the headers of a request may take. Who opens more,
 * or sends headers byte by byte, is cut off; nobody else notices.
 */
@Component
class Connections implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {
    static final int MOST = 1_024;
    static final int MOST_OF_ONE_ADDRESS = 512;
    private static final Duration HEADERS = Duration.ofSeconds(10);
    private static final Duration BETWEEN_LOOKS = Duration.ofSeconds(1);

    private final Set<String> proxies;

    Connections(Settings settings) {
        this.proxies = Set.copyOf(settings.proxies());
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.setProtocol(Protocol.class.getName());
        factory.addConnectorCustomizers(
                connector -> ((Protocol) connector.getProtocolHandler()).endpoint.proxies = proxies);
    }

    /** Named to Tomcat, which makes it. */
    public static final class Protocol extends Http11NioProtocol {
        private final Endpoint endpoint;

        public Protocol() {
            this(new Endpoint());
        }

        private Protocol(Endpoint endpoint) {
            super(endpoint);
            this.endpoint = endpoint;
        }
    }

    private static final class Endpoint extends NioEndpoint {
        private volatile Set<String> proxies = Set.of();

        @Override
        public void startInternal() throws Exception {
            super.startInternal();
            Thread.ofPlatform().daemon().name("connections").start(this::cutOffTheSlow);
        }

        @Override
        protected boolean setSocketOptions(SocketChannel socket) {
            if (getConnections().size() >= MOST || ofSameAddress(socket) >= MOST_OF_ONE_ADDRESS) {
                destroySocket(socket);
                return false;
            }
            return super.setSocketOptions(socket);
        }

        private int ofSameAddress(SocketChannel socket) {
            String address = socket.socket().getInetAddress().getHostAddress();
            if (proxies.contains(address)) {
                return 0; // all of its callers come from there
            }
            int count = 0;
            for (SocketWrapperBase<NioChannel> open : getConnections()) {
                count += address.equals(open.getRemoteAddr()) ? 1 : 0;
            }
            return count;
        }

        private void cutOffTheSlow() {
            while (isRunning()) {
                try {
                    Thread.sleep(BETWEEN_LOOKS);
                } catch (InterruptedException e) {
                    return;
                }
                for (SocketWrapperBase<NioChannel> open : getConnections()) {
                    if (open.getCurrentProcessor() instanceof AbstractProcessor processor && isSlow(processor)) {
                        open.close();
                    }
                }
            }
        }

        /** Whether a request has begun a while ago and is not being answered yet. */
        private static boolean isSlow(AbstractProcessor processor) {
            int stage = processor.getRequest().getRequestProcessor().getStage();
            long start = processor.getRequest().getStartTimeNanos();
            boolean isAnswered = stage >= Constants.STAGE_PREPARE && stage <= Constants.STAGE_ENDOUTPUT;
            return start > 0 && System.nanoTime() - start > HEADERS.toNanos() && !isAnswered && !processor.isAsync();
        }
    }
}
