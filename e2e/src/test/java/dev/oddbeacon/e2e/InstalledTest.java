package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/**
 * The packages, made, installed in a root of their own, used, upgraded and removed there. It needs root, a network, 2 GB
 * of disk and ten minutes, so it runs when it is named: {@code ./oddbeacon test -Dtest=InstalledTest}.
 */
@EnabledIfSystemProperty(named = "test", matches = ".*InstalledTest.*")
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
@Timeout(value = 20, unit = TimeUnit.MINUTES)
class InstalledTest {
    private static Path folder;
    private static Path packages;
    private static int port; // of MariaDB there, as the service remembers it

    /** What root's scripts share: the database and the service started as the unit starts them, and ended. */
    private static final String AS_THE_UNIT = """
            set -u
            start() {
                mkdir -p /run/mysqld && chown mysql: /run/mysqld
                mariadbd --user=mysql --port="$PORT" >/tmp/mariadb.log 2>&1 &
                database=$!
                /usr/lib/oddbeacon/prepare-database || exit 1
                (
                    set -a
                    . /etc/default/oddbeacon
                    . /etc/oddbeacon/database
                    exec setpriv --reuid=oddbeacon --regid=oddbeacon --clear-groups --no-new-privs -- /usr/lib/oddbeacon/bin/oddbeacon-service \
                        --oddbeacon.data=/var/lib/oddbeacon --oddbeacon.settings=/etc/oddbeacon/service.yaml
                ) >/tmp/service.log 2>&1 &
                service=$!
                until [ -s /var/lib/oddbeacon/address ]; do
                    kill -0 $service || { cat /tmp/service.log; exit 1; }
                    sleep 0.2
                done
                ODDBEACON_URL=$(sed 's:/$::' /var/lib/oddbeacon/address)
                export ODDBEACON_URL
            }
            end() {
                kill $service
                wait $service
                echo "ended with $?"
                env SERVICE_RESULT=success /usr/lib/oddbeacon/note-end
                mariadb-admin shutdown
                wait $database
            }
            """;

    @BeforeAll
    static void make() throws Exception {
        folder = Files.createTempDirectory("installed");
        packages = folder.resolve("packages");
        port = StandInIssuer.freePort();
        assertThat(run("sh", Launched.HOME.resolve("oddbeacon").toString(), "package", "--into", packages.toString()))
                .contains("oddbeacon-client-", ".deb");
    }

    @AfterAll
    static void delete() {
        Folders.delete(folder);
    }

    @Test
    @Order(1)
    void theSameBytesAreMadeAgain() throws Exception {
        Path again = folder.resolve("again");
        run("sh", Launched.HOME.resolve("oddbeacon").toString(), "package", "--into", again.toString());
        try (Stream<Path> files = Files.list(packages)) {
            List<Path> made = files.toList();
            assertThat(made).hasSize(2);
            for (Path file : made) {
                Path other = again.resolve(file.getFileName());
                assertThat(Files.mismatch(file, other) == -1 ? "" : contents(file) + contents(other))
                        .as("what differs: sizes and checksums of all that is in " + file + " and in " + other)
                        .isEmpty();
            }
        }
        Folders.delete(again);
    }

    @Test
    @Order(2)
    void theClientAloneSearchesWithoutAJavaOfTheMachine() throws Exception {
        run("tar", "-xzf", one("tar.gz").toString(), "-C", folder.toString());
        Path client;
        try (Stream<Path> files = Files.list(folder)) {
            client = files.filter(file -> file.getFileName().toString().startsWith("oddbeacon-client-"))
                    .findFirst()
                    .orElseThrow();
        }
        String program = client.resolve("bin/oddbeacon").toString();
        Map<String, String> bare = Map.of("PATH", "/usr/bin:/bin", "HOME", folder.toString());
        assertThat(run(bare, program, "lines", "mooring buffer", "--url", Demo.address()))
                .contains("MooringBuffer.java:12:");
        assertThat(folder.resolve(".cache/oddbeacon/client.jsa")).isNotEmptyFile();
        assertThat(run(bare, program, "lines", "mooring buffer", "--url", Demo.address()))
                .contains("MooringBuffer.java:12:");
        assertThat(run(bare, program, "--version")).contains("Odd Beacon ");
        assertThat(client.resolve("share/man/man1/oddbeacon-lines.1.gz")).isNotEmptyFile();
        assertThat(client.resolve("share/bash-completion/completions/oddbeacon"))
                .isNotEmptyFile();
        Path link = Files.createSymbolicLink(folder.resolve("ob"), client.resolve("bin/oddbeacon"));
        assertThat(run(bare, link.toString(), "status", "--url", Demo.address()))
                .contains("repositories");
    }

    @Test
    @Order(3)
    void theServiceIsInstalledUsedUpgradedAndRemoved() throws Exception {
        Path root = folder.resolve("root");
        run("debootstrap", "--variant=minbase", "bookworm", root.toString());
        Files.copy(Path.of("/etc/resolv.conf"), root.resolve("etc/resolv.conf"), StandardCopyOption.REPLACE_EXISTING);
        Files.copy(one(".deb"), root.resolve("tmp/first.deb"));
        Path next = folder.resolve("next");
        run("dpkg-deb", "-R", one(".deb").toString(), next.toString());
        Path control = next.resolve("DEBIAN/control");
        Files.writeString(control, Files.readString(control).replaceFirst("(?m)^Version: .*", "Version: 99.0"));
        Path shipped = next.resolve("etc/oddbeacon/service.yaml");
        Files.writeString(shipped, Files.readString(shipped) + "# of the next version\n");
        run("dpkg-deb", "--root-owner-group", "-Znone", "-b", next.toString(), root.resolve("tmp/next.deb") + "");

        String installed = within(root, """
                set -e
                apt-get update -q >/dev/null
                apt-get install -q -y --no-install-recommends /tmp/first.deb systemd man-db >/tmp/install.log 2>&1 || { cat /tmp/install.log; exit 1; }
                id oddbeacon
                stat -c '%U:%G %a %n' /etc/oddbeacon /etc/oddbeacon/service.yaml /var/lib/oddbeacon /usr/lib/oddbeacon/bin/oddbeacon-service
                systemd-analyze verify oddbeacon.service && echo the unit is well
                systemctl is-enabled oddbeacon.service
                systemd-analyze security --offline=yes --threshold=25 oddbeacon.service >/dev/null && echo the unit is tight
                """);
        assertThat(installed)
                .contains(
                        "(oddbeacon)",
                        "root:oddbeacon 750 /etc/oddbeacon\n",
                        "root:oddbeacon 640 /etc/oddbeacon/service.yaml",
                        "oddbeacon:oddbeacon 700 /var/lib/oddbeacon",
                        "root:root 755 /usr/lib/oddbeacon/bin/oddbeacon-service",
                        "the unit is well",
                        "enabled",
                        "the unit is tight");

        String first = within(root, """
                sed -i "s/port: .*/port: 0/" /etc/oddbeacon/service.yaml
                start
                oddbeacon status
                echo "status $?"
                test -s /var/lib/oddbeacon/first-sign-in && echo a link for the first administrator
                stat -c '%U %a' /etc/oddbeacon/database
                end
                printf 'oddbeacon:\\n  port: 0\\n  locations: {roots: [/srv/git]}\\n' >/etc/oddbeacon/service.yaml
                git init -q /srv/git/ferry-bell && cd /srv/git/ferry-bell
                echo 'The bell rings twice when the tide turns.' >bell.txt
                git add bell.txt && git -c user.name=Edda -c user.email=edda@quillhaven.example commit -qm 'The bell'
                chown -R oddbeacon: /srv/git
                start
                oddbeacon repos add ferry-bell /srv/git/ferry-bell --wait
                oddbeacon lines 'rings twice'
                oddbeacon-service backup /var/backups/oddbeacon
                end
                """);
        assertThat(first)
                .contains(
                        "Nobody is signed in",
                        "status 2",
                        "a link for the first administrator",
                        "root 600",
                        "ferry-bell/bell.txt:1:10: The bell rings twice",
                        "ended with 143");
        try (Stream<Path> backups = Files.list(root.resolve("var/backups/oddbeacon"))) {
            assertThat(backups).hasSize(1);
        }

        String upgraded = within(root, """
                dpkg -i --force-confold /tmp/next.deb >/tmp/upgrade.log 2>&1 || cat /tmp/upgrade.log
                dpkg-query -W -f '${Version}\\n' oddbeacon
                grep roots /etc/oddbeacon/service.yaml
                start
                oddbeacon lines 'rings twice'
                end
                """);
        assertThat(upgraded).contains("99.0", "roots: [/srv/git]", "ferry-bell/bell.txt:1:10: ");

        String restored = within(root, """
                mv /var/lib/oddbeacon/* /tmp/
                oddbeacon-service restore /var/backups/oddbeacon/oddbeacon-*
                echo "without MariaDB: $?"
                start_database_only() { mariadbd --user=mysql --port="$PORT" >/dev/null 2>&1 & database=$!; }
                start_database_only
                until mariadb -e 'drop database oddbeacon' 2>/dev/null; do sleep 0.2; done
                oddbeacon-service restore /var/backups/oddbeacon/oddbeacon-*
                mariadb-admin shutdown
                wait $database
                start
                until oddbeacon lines 'rings twice'; do sleep 1; done
                end
                """);
        assertThat(restored).contains("without MariaDB: 3", "MariaDB does not answer", "ferry-bell/bell.txt:1:10: ");

        String removed = within(root, """
                dpkg --remove oddbeacon >/dev/null 2>&1
                ls /usr/lib/oddbeacon /usr/bin/oddbeacon 2>&1
                ls /etc/oddbeacon
                dpkg --purge oddbeacon 2>&1
                ls /etc/oddbeacon/service.yaml /usr/lib/systemd/system/oddbeacon.service 2>&1
                test -s /var/lib/oddbeacon/secret-key && echo what people kept is there
                """);
        assertThat(removed)
                .contains(
                        "cannot access '/usr/lib/oddbeacon'",
                        "cannot access '/usr/bin/oddbeacon'",
                        "service.yaml",
                        "What people kept in Odd Beacon is left",
                        "cannot access '/etc/oddbeacon/service.yaml'",
                        "what people kept is there");
    }

    /** Checksums of the files in a package, by their names. */
    private static String contents(Path file) throws Exception {
        Path inside = Files.createTempDirectory(folder, "contents");
        if (file.toString().endsWith(".deb")) {
            run("dpkg-deb", "-R", file.toString(), inside + "/of");
        } else {
            run("tar", "-xzf", file.toString(), "-C", inside.toString());
        }
        return run("sh", "-c", "cd \"$1\" && find . -type f -exec cksum {} + | sort -k3", "sh", inside.toString());
    }

    private static Path one(String end) throws IOException {
        try (Stream<Path> files = Files.list(packages)) {
            return files.filter(file -> file.toString().endsWith(end))
                    .findFirst()
                    .orElseThrow();
        }
    }

    /** Runs a script in the root, with its own processes and mounts, which end with it. */
    private static String within(Path root, String script) throws Exception {
        Files.writeString(root.resolve("tmp/script"), AS_THE_UNIT + script);
        return run(
                Map.of("PORT", Integer.toString(port), "DEBIAN_FRONTEND", "noninteractive"),
                "unshare",
                "--mount",
                "--pid",
                "--fork",
                "--kill-child",
                "sh",
                "-c",
                "mount -t proc proc \"$1/proc\" && exec chroot \"$1\" sh /tmp/script 2>&1",
                "sh",
                root.toString());
    }

    private static String run(String... command) throws Exception {
        return run(Map.of(), command);
    }

    /** @return what it printed, on both of its ways; a failure fails the test */
    private static String run(Map<String, String> environment, String... command) throws Exception {
        ProcessBuilder builder = new ProcessBuilder(new ArrayList<>(List.of(command))).redirectErrorStream(true);
        builder.environment().remove("JAVA_TOOL_OPTIONS");
        builder.environment().put("ODDBEACON_PREBUILT", "yes");
        builder.environment().putAll(environment);
        Process process = builder.start();
        process.getOutputStream().close();
        String output;
        try (InputStream out = process.getInputStream()) {
            output = new String(out.readAllBytes(), StandardCharsets.UTF_8);
        }
        assertThat(process.waitFor())
                .as(String.join(" ", command) + "\n" + output)
                .isZero();
        return output;
    }
}
