package dev.oddbeacon.git;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** An agent of OpenSSH that holds one key, for one run: the key is never written to a disk. */
public final class SshAgent implements AutoCloseable {
    private static final int START_MILLIS = 5_000;

    private final Path folder; // short, as the paths of sockets have to be
    private final Path socket;
    private final Process agent;

    private SshAgent(Path folder, Process agent) {
        this.folder = folder;
        this.socket = folder.resolve("s");
        this.agent = agent;
    }

    /** @throws IOException if it does not start, or cannot read the key */
    static SshAgent of(String key) throws IOException {
        Path folder = Files.createTempDirectory("ob");
        Process process = new ProcessBuilder(
                        "ssh-agent", "-D", "-a", folder.resolve("s").toString())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        SshAgent agent = new SshAgent(folder, process);
        try {
            agent.awaitSocket();
            agent.add(key);
            return agent;
        } catch (IOException e) {
            agent.close();
            throw e;
        }
    }

    /** The fingerprint of a private key; empty if it is none, or has a passphrase. */
    public static Optional<String> fingerprint(String key) throws IOException {
        try (SshAgent agent = of(key)) {
            Process list = agent.tool("-l");
            try {
                String told = new String(list.getInputStream().readNBytes(4 << 10), StandardCharsets.UTF_8);
                int start = told.indexOf("SHA256:");
                int end = told.indexOf(' ', Math.max(0, start));
                return start < 0 || end < 0 ? Optional.empty() : Optional.of(told.substring(start, end));
            } finally {
                list.destroyForcibly();
            }
        } catch (UnreadableKeyException e) {
            return Optional.empty();
        }
    }

    /** It is no private key that can be used without asking somebody. */
    static final class UnreadableKeyException extends IOException {
        UnreadableKeyException() {
            super("the key cannot be read");
        }
    }

    Path socket() {
        return socket;
    }

    private void awaitSocket() throws IOException {
        for (int waited = 0; !Files.exists(socket); waited += 10) {
            if (waited > START_MILLIS || !agent.isAlive()) {
                throw new IOException("ssh-agent does not start; is openssh-client installed?");
            }
            sleep();
        }
    }

    private void add(String key) throws IOException {
        Process add = tool("-q", "-");
        try (OutputStream in = add.getOutputStream()) {
            in.write((key.strip() + "\n").getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UnreadableKeyException(); // it has given up reading
        }
        try {
            if (!add.waitFor(START_MILLIS, TimeUnit.MILLISECONDS) || add.exitValue() != 0) {
                throw new UnreadableKeyException();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        } finally {
            add.destroyForcibly();
        }
    }

    private Process tool(String... arguments) throws IOException {
        ProcessBuilder builder = new ProcessBuilder("ssh-add");
        builder.command().addAll(java.util.List.of(arguments));
        builder.environment().put("SSH_AUTH_SOCK", socket.toString());
        builder.environment().put("SSH_ASKPASS_REQUIRE", "force"); // whoever asks for a passphrase is told nothing
        builder.environment().put("SSH_ASKPASS", "false");
        return builder.redirectError(ProcessBuilder.Redirect.DISCARD).start();
    }

    private static void sleep() throws IOException {
        try {
            Thread.sleep(10);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }

    @Override
    public void close() throws IOException {
        agent.destroyForcibly();
        Files.deleteIfExists(socket);
        Files.deleteIfExists(folder);
    }
}
