package dev.oddbeacon.server;

import java.lang.reflect.RecordComponent;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.boot.context.properties.bind.BindException;
import org.springframework.boot.context.properties.bind.Binder;
import org.springframework.boot.context.properties.bind.DataObjectPropertyName;
import org.springframework.boot.context.properties.source.ConfigurationProperty;
import org.springframework.core.env.Environment;
import org.springframework.util.unit.DataSize;

/** Settings, checked before anything starts. */
final class SettingsCheck {
    private static final String PREFIX = "oddbeacon";
    private static final int MOST_GROUPS = 4_096;
    private static final int SHORTEST_SECRET = 16;
    private static final int LONGEST_NAME = 60; // of a cluster, or a machine

    private SettingsCheck() {}

    /** Names of all settings, in their order. */
    static List<String> names() {
        List<String> names = new ArrayList<>();
        addNames(PREFIX, Settings.class, names);
        return names;
    }

    private static void addNames(String prefix, Class<?> settings, List<String> names) {
        for (RecordComponent part : settings.getRecordComponents()) {
            String name = prefix + "." + DataObjectPropertyName.toDashedForm(part.getName());
            if (part.getType().isRecord()) {
                addNames(name, part.getType(), names);
            } else {
                names.add(name);
            }
        }
    }

    /** @throws CannotStartException if a value is none that the setting takes */
    static Settings settings(Environment environment) {
        Settings settings;
        try {
            settings = Binder.get(environment).bind(PREFIX, Settings.class).get();
        } catch (BindException e) {
            throw new CannotStartException(complaint(e));
        }
        check(settings);
        return settings;
    }

    private static String complaint(BindException e) {
        Optional<ConfigurationProperty> property = Optional.ofNullable(e.getProperty());
        for (Throwable cause = e.getCause(); property.isEmpty() && cause != null; cause = cause.getCause()) {
            property = cause instanceof BindException inner ? Optional.ofNullable(inner.getProperty()) : property;
        }
        return property.map(found -> found.getName() + " cannot be \"" + found.getValue() + "\""
                        + Optional.ofNullable(found.getOrigin())
                                .map(origin -> " (" + origin + ")")
                                .orElse("")
                        + ": it is " + expected(e) + ". docs/settings.md tells what each setting takes.")
                .orElse("The settings cannot be read: " + e.getMessage());
    }

    private static String expected(BindException e) {
        Class<?> type = e.getTarget().getType().resolve(Object.class);
        if (type == Duration.class) {
            return "a duration such as 90s, 10m, 8h or 30d";
        }
        if (type == DataSize.class) {
            return "a size such as 500MB or 2GB";
        }
        if (type == int.class) {
            return "a whole number";
        }
        if (type == boolean.class) {
            return "true or false";
        }
        if (type.isEnum()) {
            return Arrays.stream(type.getEnumConstants())
                    .map(value -> value.toString().toLowerCase(Locale.ROOT))
                    .collect(Collectors.joining(" or "));
        }
        return "something else";
    }

    private static void check(Settings settings) {
        checkThat(
                !settings.duties().isEmpty(),
                "oddbeacon.duties must name what the process does: serving, indexing or both.");
        checkThat(
                settings.port() >= 0 && settings.port() <= 65_535,
                "oddbeacon.port is " + settings.port() + ". Take a number from 0 to 65535.");
        checkThat(
                settings.groups().number() >= 1 && settings.groups().number() <= MOST_GROUPS,
                "oddbeacon.groups.number is " + settings.groups().number() + ". Take a number from 1 to " + MOST_GROUPS
                        + ".");
        checkThat(settings.quotas().requests() > 0, "oddbeacon.quotas.requests must be 1 or more.");
        checkThat(settings.quotas().searches() > 0, "oddbeacon.quotas.searches must be 1 or more.");
        for (Duration duration : List.of(
                settings.searchTime(),
                settings.secondLooksTime(),
                settings.jobTime(),
                settings.stallTime(),
                settings.sessions().idle(),
                settings.sessions().age(),
                settings.log().slow(),
                settings.issuer().every(),
                settings.issuer().sessionsLast(),
                settings.issuer().tokensLast(),
                settings.following().shortest(),
                settings.following().longest(),
                settings.following().rosters(),
                settings.cluster().grace())) {
            checkThat(duration.isPositive(), "A duration must be longer than nothing, not " + duration + ".");
        }
        checkThat(
                settings.following().shortest().compareTo(settings.following().longest()) <= 0,
                "oddbeacon.following.shortest must not be longer than oddbeacon.following.longest.");
        checkThat(settings.following().aSecond() > 0, "oddbeacon.following.a-second must be 1 or more.");
        String secret = settings.hooks().secret();
        checkThat(
                secret.isEmpty() || secret.length() >= SHORTEST_SECRET,
                "oddbeacon.hooks.secret must have " + SHORTEST_SECRET
                        + " characters or more: whoever guesses it can keep the service busy.");
        checkThat(
                !settings.hooks().header().isBlank(),
                "oddbeacon.hooks.header must name the header that holds the signature of a message.");
        checkThat(
                settings.accounts() || !settings.guests(),
                "oddbeacon.guests is for a service where people sign in: add --with-accounts, or oddbeacon.accounts.");
        Settings.Tls tls = settings.tls();
        checkThat(
                tls.certificate().isEmpty() == tls.key().isEmpty(),
                "TLS needs two PEM files: oddbeacon.tls.certificate and oddbeacon.tls.key.");
        for (String file : List.of(tls.certificate(), tls.key())) {
            checkThat(file.isEmpty() || Files.isReadable(Path.of(file)), file + " cannot be read.");
        }
        if (!settings.issuer().address().isEmpty()) {
            checkIssuer(settings);
        }
        checkCluster(settings.cluster());
    }

    /** Over http, whoever is on the way could sign in as anybody. */
    private static void checkIssuer(Settings settings) {
        String address = settings.issuer().address();
        checkThat(
                settings.accounts(),
                "oddbeacon.issuer.address is set, but nobody signs in: add --with-accounts, or oddbeacon.accounts.");
        boolean isSafe;
        try {
            URI uri = URI.create(address);
            isSafe = uri.getHost() != null
                    && uri.getRawQuery() == null
                    && ("https".equals(uri.getScheme())
                            || "http".equals(uri.getScheme())
                                    && InetAddress.getByName(uri.getHost()).isLoopbackAddress());
        } catch (IllegalArgumentException | UnknownHostException e) {
            isSafe = false;
        }
        checkThat(
                isSafe,
                "oddbeacon.issuer.address is " + address
                        + ". Give the https address of the issuer, as it stands in its discovery document.");
        checkThat(
                !settings.issuer().client().isEmpty()
                        && !settings.issuer().secret().isEmpty(),
                "The issuer has given this service an id and a secret: set oddbeacon.issuer.client and oddbeacon.issuer.secret.");
        checkThat(
                settings.issuer().scopes().contains("openid"),
                "oddbeacon.issuer.scopes must hold openid, which is what makes it OpenID Connect.");
    }

    private static void checkCluster(Settings.Cluster cluster) {
        checkThat(
                cluster.isOn() == !cluster.objects().isEmpty(),
                "A cluster needs a name and a place for what its machines share: --cluster NAME --objects s3://bucket/prefix, or a folder that all machines reach.");
        checkThat(
                cluster.isOn()
                        || cluster.machine().isEmpty() && cluster.peerAddress().isEmpty(),
                "oddbeacon.cluster.machine and peer-address are of a machine of a cluster: add --cluster NAME.");
        for (String name : List.of(cluster.name(), cluster.machine())) {
            checkThat(
                    name.isEmpty() || isName(name),
                    "\"" + name
                            + "\" is no name for a cluster or a machine. Take letters, digits, -, _, . and :, at most "
                            + LONGEST_NAME + " of them.");
        }
        checkThat(
                cluster.s3().key().isEmpty() == cluster.s3().secret().isEmpty(),
                "A bucket is reached with two things: oddbeacon.cluster.s3.key and oddbeacon.cluster.s3.secret.");
        checkThat(
                cluster.objects().isEmpty()
                        || cluster.objects().startsWith("s3://")
                        || Path.of(cluster.objects()).isAbsolute(),
                "--objects is " + cluster.objects() + ". Give s3://bucket/prefix, or the whole path of a folder.");
    }

    private static boolean isName(String name) {
        return name.length() <= LONGEST_NAME
                && name.chars().allMatch(c -> c < 128 && (Character.isLetterOrDigit(c) || "-_.:".indexOf(c) >= 0));
    }

    private static void checkThat(boolean holds, String complaint) {
        if (!holds) {
            throw new CannotStartException(complaint);
        }
    }
}
