package dev.oddbeacon.server.machines;

import com.hazelcast.cluster.Member;
import com.hazelcast.config.Config;
import com.hazelcast.config.DiscoveryStrategyConfig;
import com.hazelcast.config.JavaSerializationFilterConfig;
import com.hazelcast.config.JoinConfig;
import com.hazelcast.config.NetworkConfig;
import com.hazelcast.core.Hazelcast;
import com.hazelcast.core.HazelcastInstance;
import com.hazelcast.core.HazelcastInstanceNotActiveException;
import com.hazelcast.partition.Partition;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.index.KeptViews;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.MachineRecords;
import dev.oddbeacon.server.records.MachineRecords.MachineRecord;
import dev.oddbeacon.server.records.ProcessRecords.ProcessRecord;
import dev.oddbeacon.server.secrets.Vault;
import java.io.IOException;
import java.net.InetAddress;
import java.time.Duration;
import java.util.BitSet;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * That this machine is one of several that reach one another, by Hazelcast. They find each other by the records: each
 * writes there where the others reach it. Nothing of this begins with one machine.
 */
@Component
public class Membership implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Membership.class);
    /** Into how many partitions Hazelcast divides what machines hold. */
    static final int PARTITIONS = 271;

    private static final String QUESTIONS = "questions";
    private static final int MOST_QUESTIONS = 32; // answered at once
    private static final int MOST_WAITING = 512;
    private static final Duration BETWEEN_TRIES = Duration.ofSeconds(2);
    private static final Duration PATIENCE = Duration.ofSeconds(20); // a machine that starts is not there at once

    /** Attributes of members. */
    private enum Attribute {
        MACHINE,
        LINEAGE
    }

    private final ThisMachine machine;
    private final MachineRecords records;
    private final Processes processes;
    private final KeptViews views;
    private final Vault vault;
    private final Answering answering;
    private final Settings settings;
    private final Thread joining = Thread.ofPlatform().daemon().name("joining").unstarted(this::join);
    private final Map<Long, Long> missedSince = new ConcurrentHashMap<>(); // nanoseconds, of machines not reached
    private volatile HazelcastInstance member;
    private volatile boolean isRunning;

    Membership(
            ThisMachine machine,
            MachineRecords records,
            Processes processes,
            KeptViews views,
            Vault vault,
            Answering answering,
            Settings settings) {
        this.machine = machine;
        this.records = records;
        this.processes = processes;
        this.views = views;
        this.vault = vault;
        this.answering = answering;
        this.settings = settings;
    }

    /** Begins in the background: what this machine holds, it answers without the others. */
    @Override
    public void start() {
        isRunning = true;
        if (machine.isOfCluster()) {
            PeerAddress.of(settings); // or it does not start
            joining.start();
        }
    }

    private void join() {
        boolean isTold = false;
        while (isRunning) {
            try {
                PeerAddress address = PeerAddress.of(settings).withPort();
                records.peerAddress(machine.number(), address.toString());
                HazelcastInstance joined = Hazelcast.newHazelcastInstance(config(address));
                synchronized (this) {
                    member = joined;
                    if (!isRunning) {
                        leave();
                    }
                }
                return;
            } catch (IOException | RuntimeException e) {
                if (!isTold) {
                    LOG.warn("The other machines do not reach this one until this is put right: {}", e.getMessage());
                    isTold = true;
                }
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(BETWEEN_TRIES);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private Config config(PeerAddress address) throws IOException {
        Config config = new Config();
        config.setClassLoader(Membership.class.getClassLoader());
        // whoever has another key is none of them
        config.setClusterName(settings.cluster().name() + "-" + vault.keyHash());
        config.setProperty("hazelcast.partition.count", Integer.toString(PARTITIONS));
        config.setProperty("hazelcast.logging.type", "slf4j");
        config.setProperty("hazelcast.phone.home.enabled", "false");
        config.setProperty("hazelcast.shutdownhook.enabled", "false");
        config.setProperty("hazelcast.socket.bind.any", "false");
        config.setProperty("hazelcast.discovery.enabled", "true");
        config.setProperty("hazelcast.heartbeat.interval.seconds", "1");
        config.setProperty("hazelcast.max.no.heartbeat.seconds", "10");
        config.setProperty("hazelcast.merge.first.run.delay.seconds", "5");
        config.setProperty("hazelcast.merge.next.run.delay.seconds", "5");
        config.setProperty("hazelcast.graceful.shutdown.max.wait", "5");
        config.setProperty("hazelcast.operation.generic.thread.count", "2");
        config.setProperty("hazelcast.io.thread.count", "2");
        config.setProperty("hazelcast.event.thread.count", "1");
        config.getMetricsConfig().setEnabled(false);
        config.getJetConfig().setEnabled(false);
        config.getSerializationConfig().setJavaSerializationFilterConfig(only(Question.class.getPackageName() + "."));
        config.getMemberAttributeConfig()
                .setAttribute(Attribute.MACHINE.name(), Long.toString(machine.number()))
                .setAttribute(Attribute.LINEAGE.name(), Long.toString(views.lineage()));
        config.getUserContext().put(Answering.class.getName(), answering);
        config.getExecutorConfig(QUESTIONS).setPoolSize(MOST_QUESTIONS).setQueueCapacity(MOST_WAITING);
        NetworkConfig network = config.getNetworkConfig();
        network.setPort(address.port()).setPortAutoIncrement(false);
        network.getInterfaces()
                .setEnabled(true)
                .addInterface(InetAddress.getByName(address.host()).getHostAddress());
        JoinConfig join = network.getJoin();
        join.getAutoDetectionConfig().setEnabled(false);
        join.getMulticastConfig().setEnabled(false);
        join.getDiscoveryConfig().addDiscoveryStrategyConfig(new DiscoveryStrategyConfig(new ByRecords(this::others)));
        return config;
    }

    /** Of what comes in by Java's serialization, there is nothing but questions, answers and what ends them. */
    private static JavaSerializationFilterConfig only(String ours) {
        JavaSerializationFilterConfig filter = new JavaSerializationFilterConfig();
        filter.getWhitelist().addPrefixes(ours, "com.hazelcast.", "java.lang.", "java.util.");
        return filter;
    }

    /** Where the machines that live are reached, as the records say now. */
    private Collection<PeerAddress> others() {
        try {
            Set<Long> living = processes.machines();
            return records.all().stream()
                    .filter(other -> other.id() != machine.number() && living.contains(other.id()))
                    .flatMap(other -> PeerAddress.parse(other.peerAddress()).stream())
                    .toList();
        } catch (DataAccessException | TransactionException e) {
            return List.of();
        }
    }

    private Set<Member> members() {
        HazelcastInstance now = member;
        try {
            return now == null ? Set.of() : now.getCluster().getMembers();
        } catch (HazelcastInstanceNotActiveException e) {
            return Set.of();
        }
    }

    private static long attribute(Member member, Attribute attribute) {
        return Long.parseLong(
                Optional.ofNullable(member.getAttribute(attribute.name())).orElse("0"));
    }

    /** The machines that this one reaches directly, by their numbers; itself among them. */
    public Set<Long> reached() {
        return members().stream()
                .map(member -> attribute(member, Attribute.MACHINE))
                .collect(Collectors.toSet());
    }

    /** Looks which of the machines that serve are not reached. */
    void look() {
        Set<Long> missed = processes.all().stream()
                .filter(process -> Processes.has(process, Duty.SERVING))
                .map(ProcessRecord::machine)
                .collect(Collectors.toSet());
        missed.removeAll(reached());
        missed.remove(machine.number());
        missedSince.keySet().retainAll(missed);
        missed.forEach(number -> missedSince.putIfAbsent(number, System.nanoTime()));
    }

    /** Machines that serve, and that this one has not reached for a while. */
    public List<MachineRecord> unreached() {
        long now = System.nanoTime();
        Set<Long> missed = missedSince.entrySet().stream()
                .filter(entry -> now - entry.getValue() > PATIENCE.toNanos())
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
        return missed.isEmpty()
                ? List.of()
                : records.all().stream()
                        .filter(other -> missed.contains(other.id()))
                        .toList();
    }

    /** The other member whose views have a lineage. */
    Optional<Member> ofLineage(long lineage) {
        return members().stream()
                .filter(other -> !other.localMember() && attribute(other, Attribute.LINEAGE) == lineage)
                .findFirst();
    }

    /** Which of the {@link #PARTITIONS} other members have; none if there are no others. */
    Map<Member, BitSet> partitionsOfOthers() {
        HazelcastInstance now = member;
        Map<Member, BitSet> partitions = new LinkedHashMap<>();
        if (now == null || members().size() <= 1) {
            return partitions;
        }
        try {
            for (Partition partition : now.getPartitionService().getPartitions()) {
                Member owner = partition.getOwner();
                if (owner != null && !owner.localMember()) {
                    partitions.computeIfAbsent(owner, _ -> new BitSet()).set(partition.getPartitionId());
                }
            }
            return partitions;
        } catch (HazelcastInstanceNotActiveException e) {
            return Map.of();
        }
    }

    /** The number of the machine that a member is. */
    static long machine(Member member) {
        return attribute(member, Attribute.MACHINE);
    }

    /**
     * Asks a member. The answer fails with a {@link com.hazelcast.core.MemberLeftException} if that goes meanwhile.
     *
     * @throws RejectedExecutionException if this machine is not one of several any more, or too much is asked
     */
    Future<byte[]> ask(Member other, Question question) {
        HazelcastInstance now = member;
        if (now == null) {
            throw new RejectedExecutionException("not joined");
        }
        try {
            return now.getExecutorService(QUESTIONS).submitToMember(question, other);
        } catch (HazelcastInstanceNotActiveException e) {
            throw new RejectedExecutionException(e);
        }
    }

    @Override
    public synchronized void stop() {
        isRunning = false;
        leave();
    }

    private void leave() {
        if (member != null) {
            member.shutdown();
        }
    }

    @Override
    public boolean isRunning() {
        return isRunning;
    }
}
