package dev.oddbeacon.demo;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Makes the people of the demo: {@code People before|after ADDRESS DATA}. Before the repositories are registered it makes
 * the accounts, and a token for the launcher to register them with; afterwards it says who sees them, and takes the token
 * back.
 */
public final class People {
    private static final String PASSWORD = "seven piers at dusk";

    private final HttpClient http = HttpClient.newHttpClient();
    private final URI address;
    private final Path data;

    private People(URI address, Path data) {
        this.address = address;
        this.data = data;
    }

    public static void main(String[] arguments) throws IOException, InterruptedException {
        People people = new People(URI.create(arguments[1]), Path.of(arguments[2]));
        if (arguments[0].equals("before")) {
            people.make();
        } else {
            people.show();
        }
    }

    private void make() throws IOException, InterruptedException {
        HttpResponse<String> first = send(
                "POST",
                "session/first",
                "{\"secret\":\"%s\",\"name\":\"mira\",\"displayName\":\"Mira Quill\",\"password\":\"%s\"}"
                        .formatted(Files.readString(data.resolve("first-sign-in")), PASSWORD),
                "Origin",
                origin());
        String cookie = first.headers().firstValue("Set-Cookie").orElseThrow().replaceAll(";.*", "");
        person(cookie, "PUT", "accounts/mira", "{\"teams\":[\"harbour-office\"]}");
        person(cookie, "POST", "accounts", account("jonas", "Jonas Strand", "maintainer", "engine-room"));
        person(cookie, "POST", "accounts", account("edda", "Edda Voss", "reader", "harbour-office"));
        String issued = person(cookie, "POST", "tokens", "{\"name\":\"demo\",\"role\":\"administrator\",\"days\":1}")
                .body();
        String key = "\"token\":\"";
        int start = issued.indexOf(key) + key.length();
        Files.writeString(data.resolve("demo-token"), issued.substring(start, issued.indexOf('"', start)));
        person(cookie, "DELETE", "session", "");
        Files.writeString(data.resolve("demo-people"), """
                Sign in as one of these three, all with the password "%s":
                  mira    administrator, in the team harbour-office
                  jonas   maintainer, in the team engine-room, which alone sees hull-telemetry
                  edda    reader, in the team harbour-office
                """.formatted(PASSWORD));
    }

    private void show() throws IOException, InterruptedException {
        String token = "Bearer " + Files.readString(data.resolve("demo-token"));
        for (String line : Files.readAllLines(data.resolve("demo/repositories.tsv"))) {
            String name = line.substring(0, line.indexOf('\t'));
            String viewer = name.equals("hull-telemetry") ? "team:engine-room" : "everybody";
            send(
                    "PUT",
                    "repositories/" + name + "/viewers",
                    "{\"visibleTo\":[\"" + viewer + "\"]}",
                    "Authorization",
                    token);
        }
        String tokens = send("GET", "tokens", "", "Authorization", token).body();
        int start = tokens.indexOf("\"id\":") + "\"id\":".length();
        send("DELETE", "tokens/" + tokens.substring(start, tokens.indexOf(',', start)), "", "Authorization", token);
    }

    private static String account(String name, String displayName, String role, String team) {
        return "{\"name\":\"%s\",\"displayName\":\"%s\",\"role\":\"%s\",\"teams\":[\"%s\"],\"password\":\"%s\"}"
                .formatted(name, displayName, role, team, PASSWORD);
    }

    private String origin() {
        return address.getScheme() + "://" + address.getAuthority();
    }

    private HttpResponse<String> person(String cookie, String method, String path, String body)
            throws IOException, InterruptedException {
        return send(method, path, body, "Cookie", cookie, "Origin", origin());
    }

    private HttpResponse<String> send(String method, String path, String body, String... headers)
            throws IOException, InterruptedException {
        HttpResponse<String> answer = http.send(
                HttpRequest.newBuilder(address.resolve("api/v1/" + path))
                        .headers(headers)
                        .header("Content-Type", "application/json")
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IOException(method + " " + path + ": " + answer.statusCode() + " " + answer.body());
        }
        return answer;
    }
}
