package dev.oddbeacon.server.agents;

import dev.oddbeacon.agents.Agents;
import io.modelcontextprotocol.common.McpTransportContext;
import io.modelcontextprotocol.server.McpStatelessSyncServer;
import io.modelcontextprotocol.server.transport.HttpServletStatelessServerTransport;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import org.springframework.boot.web.servlet.ServletRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.databind.json.JsonMapper;

/** {@code /mcp}: agents, by the Model Context Protocol over streamable HTTP. Every request stands by itself. */
final class AgentsServlet extends HttpServlet {
    private static final long serialVersionUID = 1;
    private static final String ADDRESS = "/mcp";
    private static final String ASKER = InnerAsker.class.getName();
    private static final int LARGEST = 1 << 20;

    private final transient HttpServletStatelessServerTransport transport;
    private final transient McpStatelessSyncServer server;
    private final transient JsonMapper json;

    private AgentsServlet(JsonMapper json, String version) {
        this.json = json;
        this.transport = HttpServletStatelessServerTransport.builder()
                .messageEndpoint(ADDRESS)
                .maxRequestSize(LARGEST)
                .contextExtractor(request -> McpTransportContext.create(Map.of(ASKER, request.getAttribute(ASKER))))
                .build();
        this.server = Agents.serve(transport, version, context -> (InnerAsker) context.get(ASKER));
    }

    @Configuration
    static class Registration {
        @Bean
        ServletRegistrationBean<AgentsServlet> agents(JsonMapper json) {
            ServletRegistrationBean<AgentsServlet> bean =
                    new ServletRegistrationBean<>(new AgentsServlet(json, version()), ADDRESS);
            bean.setName("agents");
            return bean;
        }
    }

    private static String version() {
        return Optional.ofNullable(AgentsServlet.class.getPackage().getImplementationVersion())
                .orElse("not packaged");
    }

    @Override
    protected void service(HttpServletRequest request, HttpServletResponse response)
            throws ServletException, IOException {
        request.setAttribute(ASKER, new InnerAsker(request, response, json));
        transport.service(request, response);
    }

    @Override
    public void destroy() {
        server.close();
    }
}
