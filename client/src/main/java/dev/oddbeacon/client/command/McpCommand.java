package dev.oddbeacon.client.command;

import dev.oddbeacon.agents.Agents;
import dev.oddbeacon.agents.Asker;
import dev.oddbeacon.agents.RefusedException;
import dev.oddbeacon.client.ClientMain;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import io.modelcontextprotocol.json.McpJsonDefaults;
import io.modelcontextprotocol.server.transport.StdioServerTransportProvider;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code oddbeacon mcp}. */
@Command(
        name = "mcp",
        mixinStandardHelpOptions = true,
        description =
                "Serves an agent by the Model Context Protocol, over standard input and output: searches, files, outlines, uses and the past, within a budget of tokens.%n",
        footer = {
            "",
            "It is for programs to start. Those that speak the protocol over HTTP need no client:",
            "the service itself answers them at /mcp, with a token where people sign in.",
        })
public final class McpCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Override
    public Integer call() throws InterruptedException {
        Ending in = new Ending(System.in);
        Agents.serve(
                new StdioServerTransportProvider(McpJsonDefaults.getMapper(), in, System.out),
                ClientMain.version().orElse("not packaged"),
                new OfService(service));
        in.ended.await();
        return ExitStatus.FOUND;
    }

    /** Input whose end is told. */
    private static final class Ending extends FilterInputStream {
        private final CountDownLatch ended = new CountDownLatch(1);

        Ending(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            return told(super.read());
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            return told(super.read(buffer, offset, length));
        }

        private int told(int read) {
            if (read < 0) {
                ended.countDown();
            }
            return read;
        }
    }

    private record OfService(Service service) implements Asker {
        @Override
        public <T> T get(Question question, Class<T> type) {
            Service.Parameters parameters = new Service.Parameters();
            question.parameters().forEach(parameter -> parameters.add(parameter.name(), parameter.value()));
            try {
                return service.get("/api/v1/" + question.path(), parameters, type);
            } catch (ServiceProblem e) {
                throw new RefusedException(e.getMessage());
            }
        }

        @Override
        public String console() {
            return service.console();
        }
    }
}
