package dev.oddbeacon.server.agents;

import dev.oddbeacon.agents.Agents;
import dev.oddbeacon.server.web.ApiDescription;
import io.modelcontextprotocol.common.McpTransportContext;
import io.modelcontextprotocol.server.McpStatelessSyncServer;
import io.modelcontextprotocol.server.transport.HttpServletStatelessServerTransport;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import org.springframework.boot.web.servlet.ServletRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.MediaType;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** {@code /mcp}: agents, by the Model Context Protocol over streamable HTTP. Every request stands by itself. */
final class AgentsServlet extends HttpServlet {
    private static final long serialVersionUID = 1;
    private static final String ADDRESS = "/mcp";
    private static final String ASKER = InnerAsker.class.getName();
    private static final int LARGEST = 1 << 20;
    private static final int INVALID = -32600;

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
                    new ServletRegistrationBean<>(new AgentsServlet(json, ApiDescription.version()), ADDRESS);
            bean.setName("agents");
            return bean;
        }
    }

    @Override
    protected void service(HttpServletRequest request, HttpServletResponse response)
            throws ServletException, IOException {
        request.setAttribute(ASKER, new InnerAsker(request, response, json));
        KeptAnswer kept = new KeptAnswer(response);
        SentMessage sent = new SentMessage(request);
        if (request.getMethod().equals("POST") && !isObject(sent.body())) {
            kept.setStatus(HttpServletResponse.SC_BAD_REQUEST);
            kept.getWriter().write("{}"); // what is wrong is said below
        } else {
            transport.service(sent, kept);
        }
        response.setStatus(kept.getStatus());
        byte[] body = kept.body();
        if (body.length > 0) {
            response.setContentType(MediaType.APPLICATION_JSON_VALUE);
            response.getOutputStream()
                    .write(kept.getStatus() < HttpServletResponse.SC_BAD_REQUEST ? body : refusal(body));
        }
    }

    private boolean isObject(byte[] body) {
        try {
            return json.readTree(body).isObject();
        } catch (JacksonException e) {
            return false;
        }
    }

    /** The library tells of an exception with its trace; who asked gets what is wrong, as JSON-RPC has it. */
    private byte[] refusal(byte[] body) {
        String message = "The message is none of the protocol's: a JSON object as JSON-RPC 2.0 has it.";
        int code = INVALID;
        try {
            JsonNode error = json.readTree(body).path("jsonRpcError");
            code = error.path("code").asInt(INVALID);
            message = error.path("message").asString(message);
        } catch (JacksonException e) {
            // it was in words
        }
        return json.writeValueAsBytes(new Refused("2.0", null, new Refused.Reason(code, message)));
    }

    /** An error of JSON-RPC 2.0. */
    private record Refused(String jsonrpc, Object id, Reason error) {
        private record Reason(int code, String message) {}
    }

    @Override
    public void destroy() {
        server.close();
    }
}
