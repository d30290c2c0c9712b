package dev.oddbeacon.server.agents;

import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.WriteListener;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.ByteArrayOutputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;

/** An answer that is kept, with its status, in place of being sent. */
final class KeptAnswer extends HttpServletResponseWrapper {
    private final ByteArrayOutputStream body = new ByteArrayOutputStream();
    private final PrintWriter writer = new PrintWriter(body, false, StandardCharsets.UTF_8);
    private int status = SC_OK;
    private String contentType;

    KeptAnswer(HttpServletResponse response) {
        super(response);
    }

    @Override
    public void setStatus(int status) {
        this.status = status;
    }

    @Override
    public void sendError(int status) {
        this.status = status;
    }

    @Override
    public void sendError(int status, String message) {
        this.status = status;
    }

    byte[] body() {
        writer.flush();
        return body.toByteArray();
    }

    @Override
    public int getStatus() {
        return status;
    }

    @Override
    public void setContentType(String type) {
        contentType = type;
    }

    @Override
    public String getContentType() {
        return contentType;
    }

    @Override
    public void setHeader(String name, String value) {
        // it is not sent
    }

    @Override
    public void addHeader(String name, String value) {
        // it is not sent
    }

    @Override
    public void setContentLength(int length) {
        // it is not sent
    }

    @Override
    public void setContentLengthLong(long length) {
        // it is not sent
    }

    @Override
    public boolean isCommitted() {
        return false;
    }

    @Override
    public void flushBuffer() {
        writer.flush();
    }

    @Override
    public void reset() {
        body.reset();
    }

    @Override
    public void resetBuffer() {
        body.reset();
    }

    @Override
    public PrintWriter getWriter() {
        return writer;
    }

    @Override
    public ServletOutputStream getOutputStream() {
        return new ServletOutputStream() {
            @Override
            public void write(int b) {
                body.write(b);
            }

            @Override
            public void write(byte[] bytes, int offset, int length) {
                body.write(bytes, offset, length);
            }

            @Override
            public boolean isReady() {
                return true;
            }

            @Override
            public void setWriteListener(WriteListener listener) {
                throw new UnsupportedOperationException();
            }
        };
    }
}
