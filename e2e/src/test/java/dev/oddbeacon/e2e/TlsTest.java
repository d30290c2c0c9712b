package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.Base64;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A service that others reach, over TLS. */
class TlsTest {
    @TempDir
    Path folder;

    /** A certificate and its key, as two PEM files. */
    private void make(String name) throws Exception {
        Path store = folder.resolve(name + ".p12");
        Process keytool = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "web",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=localhost",
                        "-ext",
                        "SAN=dns:localhost",
                        "-keystore",
                        store.toString(),
                        "-storetype",
                        "PKCS12",
                        "-storepass",
                        "secret")
                .redirectErrorStream(true)
                .start();
        assertThat(keytool.waitFor()).isZero();
        KeyStore keys = KeyStore.getInstance(store.toFile(), "secret".toCharArray());
        write("certificate.pem", "CERTIFICATE", keys.getCertificate("web").getEncoded());
        write(
                "key.pem",
                "PRIVATE KEY",
                keys.getKey("web", "secret".toCharArray()).getEncoded());
    }

    private void write(String file, String kind, byte[] bytes) throws IOException {
        Files.writeString(
                folder.resolve(file),
                "-----BEGIN " + kind + "-----\n"
                        + Base64.getMimeEncoder(64, new byte[] {'\n'}).encodeToString(bytes) + "\n-----END " + kind
                        + "-----\n");
    }

    /** Somebody who trusts the certificate that lies there now, and no other. */
    private HttpClient client() throws Exception {
        KeyStore trusted = KeyStore.getInstance(KeyStore.getDefaultType());
        trusted.load(null, null);
        try (var in = Files.newInputStream(folder.resolve("certificate.pem"))) {
            trusted.setCertificateEntry("web", (X509Certificate)
                    CertificateFactory.getInstance("X.509").generateCertificate(in));
        }
        TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trust.init(trusted);
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, trust.getTrustManagers(), null);
        return HttpClient.newBuilder().sslContext(context).build();
    }

    private static HttpResponse<String> get(HttpClient client, String address)
            throws IOException, InterruptedException {
        return client.send(HttpRequest.newBuilder(URI.create(address)).build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void theFirstAdministratorSignsInAndARenewedCertificateIsTaken() throws Exception {
        make("first");
        try (Launched service = Launched.start(
                "serve",
                folder.resolve("data"),
                "--port",
                "0",
                "--with-accounts",
                "--listen",
                "0.0.0.0",
                "--name",
                "localhost",
                "--tls",
                folder.resolve("certificate.pem").toString(),
                folder.resolve("key.pem").toString())) {
            String address = service.address();
            assertThat(address).startsWith("https://localhost:");
            String link = service.awaitLine("/first#");
            HttpClient client = client();
            HttpResponse<String> page = get(client, address + "/");
            assertThat(page.statusCode()).isEqualTo(200);
            assertThat(page.headers().firstValue("Strict-Transport-Security")).isPresent();
            HttpResponse<String> first = client.send(
                    HttpRequest.newBuilder(URI.create(address + "/api/v1/session/first"))
                            .header("Content-Type", "application/json")
                            .POST(HttpRequest.BodyPublishers.ofString("{\"secret\":\"" + link.replaceAll(".*#", "")
                                    + "\",\"name\":\"ada\",\"password\":\"seven grey gulls\"}"))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            assertThat(first.statusCode()).as(first.body()).isEqualTo(200);
            assertThat(first.headers().firstValue("Set-Cookie").orElseThrow())
                    .startsWith("__Host-oddbeacon-session=")
                    .contains("Secure", "HttpOnly", "SameSite=Lax");

            make("second");
            HttpClient after = client();
            long deadline = System.nanoTime() + 60_000_000_000L;
            while (true) {
                try {
                    assertThat(get(after, address + "/").statusCode()).isEqualTo(200);
                    break;
                } catch (SSLHandshakeException e) { // it is still the first one
                    assertThat(System.nanoTime()).isLessThan(deadline);
                    Thread.sleep(500);
                }
            }
            assertThatThrownBy(() -> get(client(), address.replace("localhost", "127.0.0.1") + "/"))
                    .as("it is another host's certificate")
                    .isInstanceOf(IOException.class);
        }
    }
}
