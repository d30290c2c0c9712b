package dev.oddbeacon.server.machines;

import com.hazelcast.cluster.Address;
import com.hazelcast.config.properties.PropertyDefinition;
import com.hazelcast.logging.ILogger;
import com.hazelcast.spi.discovery.AbstractDiscoveryStrategy;
import com.hazelcast.spi.discovery.DiscoveryNode;
import com.hazelcast.spi.discovery.DiscoveryStrategy;
import com.hazelcast.spi.discovery.DiscoveryStrategyFactory;
import com.hazelcast.spi.discovery.SimpleDiscoveryNode;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;

/** Tells Hazelcast where the other machines are, each time it looks for them. */
final class ByRecords implements DiscoveryStrategyFactory {
    private final Supplier<Collection<PeerAddress>> others;

    ByRecords(Supplier<Collection<PeerAddress>> others) {
        this.others = others;
    }

    @Override
    public Class<? extends DiscoveryStrategy> getDiscoveryStrategyType() {
        return Looking.class;
    }

    @Override
    @SuppressWarnings("rawtypes") // as the interface has it
    public DiscoveryStrategy newDiscoveryStrategy(DiscoveryNode own, ILogger log, Map<String, Comparable> properties) {
        return new Looking(log, properties, others);
    }

    @Override
    public Collection<PropertyDefinition> getConfigurationProperties() {
        return List.of();
    }

    private static final class Looking extends AbstractDiscoveryStrategy {
        private final Supplier<Collection<PeerAddress>> others;

        @SuppressWarnings("rawtypes") // as the class above has it
        Looking(ILogger log, Map<String, Comparable> properties, Supplier<Collection<PeerAddress>> others) {
            super(log, properties);
            this.others = others;
        }

        @Override
        public Iterable<DiscoveryNode> discoverNodes() {
            List<DiscoveryNode> nodes = new ArrayList<>();
            for (PeerAddress other : others.get()) {
                try {
                    nodes.add(new SimpleDiscoveryNode(new Address(other.host(), other.port())));
                } catch (UnknownHostException e) {
                    getLogger().info("There is no host " + other.host());
                }
            }
            return nodes;
        }
    }
}
