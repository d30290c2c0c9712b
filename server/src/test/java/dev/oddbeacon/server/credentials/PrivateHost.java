package dev.oddbeacon.server.credentials;

import com.sun.net.httpserver.HttpServer;
import dev.oddbeacon.server.TestRepository;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.PublicKeyEntry;
import org.apache.sshd.common.keyprovider.KeyPairProvider;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.shell.ProcessShellFactory;

/** A host that shows its repositories to those alone who have a key, or a token: a real server for ssh, and one for http. */
final class PrivateHost implements AutoCloseable {
    static final String USER = "reader";

    private final Path folder;
    private final Set<String> letIn = ConcurrentHashMap.newKeySet(); // public keys
    private final List<String> headers = new CopyOnWriteArrayList<>();
    private final HttpServer web;
    private volatile String token = "the first token";
    private SshServer ssh;
    private KeyPair hostKey;

    PrivateHost(Path folder) throws IOException {
        this.folder = folder;
        changeHostKey();
        startSsh(0);
        web = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        web.createContext("/", exchange -> {
            String wanted = "Basic "
                    + Base64.getEncoder().encodeToString((USER + ":" + token).getBytes(StandardCharsets.UTF_8));
            String sent = exchange.getRequestHeaders().getFirst("Authorization");
            headers.add(String.valueOf(sent));
            Path file = folder.resolve(exchange.getRequestURI().getPath().substring(1));
            try (exchange) {
                if (!wanted.equals(sent)) {
                    exchange.getResponseHeaders().add("WWW-Authenticate", "Basic realm=\"repositories\"");
                    exchange.sendResponseHeaders(401, -1);
                } else if (!Files.isRegularFile(file)) {
                    exchange.sendResponseHeaders(404, -1);
                } else {
                    byte[] bytes = Files.readAllBytes(file);
                    exchange.sendResponseHeaders(200, bytes.length == 0 ? -1 : bytes.length);
                    exchange.getResponseBody().write(bytes);
                }
            }
        });
        web.start();
    }

    /** A repository of it. @return where its web server shows it */
    String add(String name) throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve(name))
                .write("a.txt", "low tide\n")
                .commit("Gauge");
        repository.git("update-server-info");
        Path path = repository.path();
        return "http://127.0.0.1:" + web.getAddress().getPort() + "/"
                + folder.relativize(path).resolve(".git");
    }

    String sshLocation(String name) {
        return "ssh://git@" + sshHost() + folder.resolve(name);
    }

    String sshHost() {
        return "127.0.0.1:" + ssh.getPort();
    }

    String webHost() {
        return "127.0.0.1:" + web.getAddress().getPort();
    }

    /** What its web server was sent as authorization, the latest last. */
    List<String> headers() {
        return headers;
    }

    void changeToken(String newToken) {
        token = newToken;
    }

    /** Lets one key in, and no other. @return the private key, as ssh-keygen writes it */
    String letIn(String passphrase) throws IOException {
        Path key = Files.createTempDirectory(folder, "key").resolve("id");
        run("ssh-keygen", "-q", "-t", "ed25519", "-N", passphrase, "-C", "service", "-f", key.toString());
        String line = Files.readString(key.resolveSibling("id.pub"));
        letIn.clear();
        letIn.add(line.split(" ")[1]);
        return Files.readString(key);
    }

    private static void run(String... command) throws IOException {
        try {
            Process process =
                    new ProcessBuilder(command).redirectErrorStream(true).start();
            String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (process.waitFor() != 0) {
                throw new IOException(said);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    /** As ssh-keygen would show it. */
    String hostFingerprint() {
        return KeyUtils.getFingerPrint(hostKey.getPublic());
    }

    /** It is known by another key from now on. */
    void changeHostKey() throws IOException {
        try {
            KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
            generator.initialize(256);
            hostKey = generator.generateKeyPair();
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
        if (ssh != null) {
            int port = ssh.getPort();
            ssh.stop(true);
            startSsh(port);
        }
    }

    private void startSsh(int port) throws IOException {
        ssh = SshServer.setUpDefaultServer();
        ssh.setHost("127.0.0.1");
        ssh.setPort(port);
        ssh.setKeyPairProvider(KeyPairProvider.wrap(hostKey));
        ssh.setPublickeyAuthenticator(
                (_, key, _) -> letIn.contains(PublicKeyEntry.toString(key).split(" ")[1]));
        ssh.setPasswordAuthenticator(null);
        ssh.setCommandFactory(
                (channel, command) -> new ProcessShellFactory(command, "sh", "-c", command).createShell(channel));
        ssh.start();
    }

    @Override
    public void close() throws IOException {
        ssh.stop(true);
        web.stop(0);
    }
}
