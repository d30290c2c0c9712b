package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Decides before anything connects. */
class LocationPolicyTest {
    /** A policy for which every host has one address. */
    private static LocationPolicy resolving(String address, String... allowed) {
        return new LocationPolicy(List.of(), List.of(), List.of(), List.of(allowed), _ ->
                new InetAddress[] {InetAddress.getByName(address)});
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "127.0.0.1",
                "127.9.9.9",
                "0.0.0.0",
                "0.1.2.3",
                "10.1.2.3",
                "172.16.0.1",
                "172.31.255.255",
                "192.168.1.1",
                "169.254.169.254",
                "100.64.0.1",
                "198.18.0.1",
                "224.0.0.1",
                "255.255.255.255",
                "::1",
                "::",
                "fe80::1",
                "fc00::1",
                "fd12:3456::1",
                "ff02::1",
                "::ffff:127.0.0.1",
                "::ffff:10.0.0.1",
                "64:ff9b::7f00:1",
                "2002:7f00:1::1",
                "::7f00:1"
            })
    void hostsWithAddressesThatAreNotPublicAreNotGoneTo(String address) throws Exception {
        Location location = Location.parse("https://git.quillhaven.example/app.git");
        assertThatThrownBy(() -> resolving(address).check(location))
                .isInstanceOf(LocationPolicy.ForbiddenException.class);
        assertThat(resolving(address, "git.QUILLHAVEN.example").check(location))
                .as("unless they are named")
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"192.0.32.7", "172.32.0.1", "100.128.0.1", "2a00:1450::1"})
    void othersArePinnedToTheirAddress(String address) throws Exception {
        for (String location :
                List.of("https://git.quillhaven.example/app.git", "git@git.quillhaven.example:app.git")) {
            assertThat(resolving(address).check(Location.parse(location))).hasValue(InetAddress.getByName(address));
        }
    }

    /** The resolver answers once: what is connected to must be what was judged, whatever the name leads to later. */
    @Test
    void gitConnectsToTheAddressThatWasJudged(@TempDir Path folder) throws Exception {
        GitTransport transport = new GitTransport(
                resolving("192.0.32.7"),
                folder,
                Duration.ofSeconds(5),
                Duration.ofSeconds(5),
                1 << 20,
                Credential.Store.NONE);
        assertThat(transport
                        .to(Location.parse("https://git.quillhaven.example/app.git"))
                        .command())
                .contains("http.curloptResolve=git.quillhaven.example:443:192.0.32.7", "http.followRedirects=false");
        assertThat(transport
                        .to(Location.parse("git@git.quillhaven.example:app.git"))
                        .environment("GIT_SSH_COMMAND"))
                .contains(
                        " -oHostName=192.0.32.7 ", " -oHostKeyAlias=git.quillhaven.example ", " -oProxyCommand=none ");
    }

    @Test
    void oneAddressThatIsNotPublicAmongOthersIsEnough() throws Exception {
        LocationPolicy policy = new LocationPolicy(List.of(), List.of(), List.of(), List.of(), _ ->
                new InetAddress[] {InetAddress.getByName("192.0.32.7"), InetAddress.getByName("10.0.0.1")});
        Location location = Location.parse("http://git.quillhaven.example/app.git");
        assertThatThrownBy(() -> policy.check(location)).isInstanceOf(LocationPolicy.ForbiddenException.class);
    }

    @Test
    void anAddressInTheLocationIsJudgedAsItStands() throws Exception {
        for (String location : List.of("http://127.0.0.1:8080/x", "http://[::1]/x", "http://2130706433/x")) {
            assertThatThrownBy(() -> LocationPolicy.OPEN.check(Location.parse(location)))
                    .as(location)
                    .isInstanceOf(Exception.class);
        }
    }

    @Test
    void aHostThatNobodyKnowsIsNotGoneTo() throws Exception {
        LocationPolicy policy = new LocationPolicy(List.of(), List.of(), List.of(), List.of(), host -> {
            throw new UnknownHostException(host);
        });
        Location location = Location.parse("https://git.quillhaven.example/app.git");
        assertThatThrownBy(() -> policy.check(location)).isInstanceOf(LocationPolicy.ForbiddenException.class);
    }

    @Nested
    class Folders {
        @TempDir
        Path folder;

        private LocationPolicy policy;

        @BeforeEach
        void lay() throws Exception {
            for (String path : List.of("src/app", "data/mirrors/1.git/objects", "data/demo/app", "other")) {
                Files.createDirectories(folder.resolve(path));
            }
            policy = new LocationPolicy(
                    List.of(folder.resolve("src"), folder.resolve("data")),
                    List.of(folder.resolve("data")),
                    List.of(folder.resolve("data/demo")),
                    List.of(),
                    InetAddress::getAllByName);
        }

        private boolean takes(String path) throws Exception {
            try {
                return policy.check(Location.parse(folder.resolve(path).toString()))
                        .isEmpty();
            } catch (LocationPolicy.ForbiddenException e) {
                return false;
            }
        }

        @Test
        void lieBelowARootAndNotInTheDataFolder() throws Exception {
            assertThat(takes("src/app")).isTrue();
            assertThat(takes("data/demo/app")).isTrue();
            assertThat(takes("data/mirrors/1.git")).isFalse();
            assertThat(takes("data/demo/../mirrors/1.git")).isFalse();
            assertThat(takes("other")).isFalse();
            assertThat(takes("src/app/../../other")).isFalse();
            assertThat(takes("src/nowhere")).isFalse();
        }

        @Test
        void thatLeadIntoTheDataFolderAreRefusedHoweverTheyDo() throws Exception {
            Files.createSymbolicLink(folder.resolve("src/link"), folder.resolve("data/mirrors/1.git"));
            assertThat(takes("src/link")).isFalse();
            Files.createDirectories(folder.resolve("src/file"));
            Files.writeString(
                    folder.resolve("src/file/.git"), "gitdir: " + folder.resolve("data/mirrors/1.git") + "\n");
            assertThat(takes("src/file")).isFalse();
            Files.createDirectories(folder.resolve("src/borrows/.git/objects/info"));
            Files.writeString(
                    folder.resolve("src/borrows/.git/objects/info/alternates"),
                    folder.resolve("data/mirrors/1.git/objects") + "\n");
            assertThat(takes("src/borrows")).isFalse();
            Files.createDirectories(folder.resolve("src/shares/.git"));
            Files.writeString(
                    folder.resolve("src/shares/.git/commondir"),
                    folder.resolve("data/mirrors/1.git").toString());
            assertThat(takes("src/shares")).isFalse();
        }
    }
}
