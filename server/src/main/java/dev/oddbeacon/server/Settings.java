package dev.oddbeacon.server;

import dev.oddbeacon.git.Credential;
import dev.oddbeacon.git.GitTransport;
import dev.oddbeacon.git.LocationPolicy;
import java.net.InetAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;

/**
 * What can be configured under {@code oddbeacon.}
 *
 * @param duties what this process does: serving, indexing
 * @param listen the address that it listens on
 * @param port 0 takes a free one
 * @param tls two PEM files, read again when they change; empty for none
 * @param database where its records are
 * @param data the data folder
 * @param largestFile larger files are skipped
 * @param historyCommits how many commits of a repository are indexed, the newest ones
 * @param searchTime after which a search answers with what it has
 * @param secondLooksTime after which looking at changed searches ends, with those that are known by then
 * @param warmUp whether to ask itself a few things after the start
 * @param locations where repositories may be
 * @param jobTime after which fetching or indexing a repository, or reading its past, is given up
 * @param stallTime after which a fetch is given up that nothing arrives of
 * @param largestFetch the most that is fetched of a repository at once
 * @param groups of repositories, whose text lies in segments of their own
 * @param following of what happens in repositories
 * @param hooks that tell of pushes
 * @param freeDisk with less room in the data folder nothing is indexed
 * @param accounts whether people sign in
 * @param guests whether some repositories may be searched without signing in
 * @param names by which this service is reached, beside those of loopback
 * @param proxies addresses of those in front, whose connections are many people's
 * @param sessions how long people stay signed in
 * @param quotas how much one account may ask for
 * @param log of the service, on standard output
 * @param mail that watches send
 * @param issuer of OpenID Connect that people sign in through
 * @param cluster of machines that this one is of
 */
@ConfigurationProperties("oddbeacon")
public record Settings(
        Set<Duty> duties,
        String listen,
        int port,
        Tls tls,
        Database database,
        Path data,
        DataSize largestFile,
        int historyCommits,
        Duration searchTime,
        Duration secondLooksTime,
        boolean warmUp,
        Locations locations,
        Duration jobTime,
        Duration stallTime,
        DataSize largestFetch,
        DataSize freeDisk,
        Groups groups,
        Following following,
        Hooks hooks,
        boolean accounts,
        boolean guests,
        List<String> names,
        List<String> proxies,
        Sessions sessions,
        Quotas quotas,
        Log log,
        Mail mail,
        Issuer issuer,
        Cluster cluster) {
    /** Files of a certificate and its key. */
    public record Tls(String certificate, String key) {}

    /**
     * Groups of repositories.
     *
     * @param number of groups; forks of one origin are in the same
     * @param byVisibility whether repositories that different people may see are in different ones as well
     */
    public record Groups(int number, boolean byVisibility) {}

    /** A database of MariaDB. @param url for JDBC */
    public record Database(String url, String user, String password) {}

    /**
     * Where repositories may be.
     *
     * @param roots folders below which local ones lie; if there are none: all that the service may read, but with
     *     accounts none, as whoever registers is not whoever runs the service
     * @param hosts that are allowed although their addresses are private ones
     */
    public record Locations(List<Path> roots, List<String> hosts) {}

    /**
     * How repositories are asked whether they have changed.
     *
     * @param enabled whether they are asked at all
     * @param shortest between two times, of one that changes often
     * @param longest between two times, of one that is quiet
     * @param aSecond at most so many are asked
     * @param rosters between two times that a roster is read
     */
    public record Following(boolean enabled, Duration shortest, Duration longest, int aSecond, Duration rosters) {}

    /**
     * Messages about pushes.
     *
     * @param secret that they are signed with; empty if none is taken
     * @param header that holds the signature
     */
    public record Hooks(String secret, String header) {}

    /**
     * How long people stay signed in in a browser.
     *
     * @param idle without a request
     * @param age in all
     */
    public record Sessions(Duration idle, Duration age) {}

    /**
     * How much one account may ask for.
     *
     * @param requests a minute
     * @param searches at a time
     */
    public record Quotas(int requests, int searches) {}

    /**
     * What the service writes on standard output.
     *
     * @param format of its lines
     * @param slow searches that take longer are named
     */
    public record Log(Format format, Duration slow) {
        /** Of lines of the log. */
        public enum Format {
            TEXT,
            JSON
        }
    }

    /**
     * How mail is sent.
     *
     * @param server host, or host:port; empty if none is sent
     * @param user empty if the server asks for none
     * @param from the address that mails come from
     * @param to globs of the addresses that mails may go to
     */
    public record Mail(
            String server, Encryption encryption, String user, String password, String from, List<String> to) {
        /** Of the connection to the server. */
        public enum Encryption {
            STARTTLS,
            TLS,
            NONE
        }
    }

    /**
     * An issuer of OpenID Connect that people sign in through.
     *
     * @param address below which its discovery document is; empty for none
     * @param label what it is called in the console
     * @param client how it knows this service
     * @param secret that it gave this service
     * @param scopes that are asked for
     * @param nameClaim that holds the name of the account
     * @param groupsClaim that holds the groups, which become teams
     * @param groups globs; those that match become teams
     * @param maintainers groups whose people are maintainers
     * @param administrators groups whose people are administrators
     * @param every after which groups are read again
     * @param sessionsLast without the issuer confirming whose they are
     * @param tokensLast without the issuer confirming whose they are
     */
    public record Issuer(
            String address,
            String label,
            String client,
            String secret,
            List<String> scopes,
            String nameClaim,
            String groupsClaim,
            List<String> groups,
            List<String> maintainers,
            List<String> administrators,
            Duration every,
            Duration sessionsLast,
            Duration tokensLast) {}

    /**
     * Several machines that do the work of one.
     *
     * @param name the same on all machines; empty for one machine, where nothing of this happens
     * @param machine the name of this one; empty for its host and port
     * @param peerAddress where the others reach this one, HOST or HOST:PORT; empty for where it listens
     * @param objects where the files of the index lie that all machines share: s3://bucket/prefix, or a folder
     * @param grace after which a file that nobody needs any more is deleted there
     * @param shareAfter how long a machine searches alone before the others take over a part of it each
     */
    public record Cluster(
            String name,
            String machine,
            String peerAddress,
            String objects,
            S3 s3,
            Duration grace,
            Duration shareAfter) {
        /**
         * How a bucket is reached.
         *
         * @param endpoint address of the store; empty for the region's own
         * @param key access key; empty if the environment has one
         */
        public record S3(String endpoint, String region, String key, String secret) {}

        /** Whether this machine is one of several. */
        public boolean isOn() {
            return !name.isEmpty();
        }
    }

    /** Where repositories may be. The demo's lie in the data folder, all else in there is the service's own. */
    public LocationPolicy locationPolicy() {
        Path folder = data.toAbsolutePath();
        List<Path> roots = accounts && locations.roots.isEmpty() ? List.of(folder.resolve("demo")) : locations.roots;
        return new LocationPolicy(
                roots, List.of(folder), List.of(folder.resolve("demo")), locations.hosts, InetAddress::getAllByName);
    }

    /** How other repositories are reached. */
    public GitTransport transport(Credential.Store credentials) {
        return new GitTransport(
                locationPolicy(),
                data.toAbsolutePath().resolve("git"),
                jobTime,
                stallTime,
                largestFetch.toBytes(),
                credentials);
    }

    /** Files of the index. */
    public Path indexFolder() {
        return data.toAbsolutePath().resolve("index");
    }

    /** The mirror of a repository. */
    public Path mirror(long repositoryId) {
        return data.toAbsolutePath().resolve("mirrors").resolve(repositoryId + ".git");
    }
}
