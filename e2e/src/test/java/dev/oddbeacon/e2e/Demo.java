package dev.oddbeacon.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** The demo, started once for all tests that only read it, or that put back what they change. */
final class Demo {
    private static Launched launched;

    private Demo() {}

    static synchronized Launched get() {
        if (launched == null) {
            try {
                Path data = Files.createTempDirectory("oddbeacon-demo");
                launched = Launched.start("demo", data, "--port", "0");
                Runtime.getRuntime().addShutdownHook(new Thread(() -> {
                    launched.close();
                    Folders.delete(data);
                }));
            } catch (IOException e) {
                throw new IllegalStateException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }
        return launched;
    }

    static String address() {
        try {
            return get().address();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }
}
