package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.replace.EncodedText;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Edits of files in every encoding, with every line end, are applied by Git, and every byte is compared. */
class PatchesAgainstGitTest {
    private static final int FILES = 150;
    /** Of white space: they hold bytes that are no text. */
    private static final String WITHOUT_WARNINGS = "--whitespace=nowarn";

    private static final List<String> WORDS =
            List.of("depth", "feet", "ä", "€", "𝄞", " ", "\t", "(", "\u010A", "\r", "x");

    @TempDir
    private Path folder;

    private String git(String... arguments) throws IOException, InterruptedException {
        List<String> all = new ArrayList<>(List.of("-c", "user.name=T", "-c", "user.email=t@x.example"));
        all.addAll(List.of(arguments));
        return GitCommand.run(folder, all.toArray(String[]::new));
    }

    private static byte[] file(Random random) {
        List<Charset> charsets = List.of(
                StandardCharsets.UTF_8,
                StandardCharsets.UTF_8,
                StandardCharsets.ISO_8859_1,
                StandardCharsets.UTF_16LE,
                StandardCharsets.UTF_16BE);
        Charset charset = charsets.get(random.nextInt(charsets.size()));
        List<String> ends = List.of("\n", "\r\n", random.nextBoolean() ? "\n" : "\r\n");
        String end = ends.get(random.nextInt(3));
        StringBuilder text = new StringBuilder();
        int lines = random.nextInt(40);
        for (int line = 0; line < lines; line++) {
            for (int word = random.nextInt(6); word > 0; word--) {
                String next = WORDS.get(random.nextInt(WORDS.size()));
                text.append(charset.newEncoder().canEncode(next) ? next : "?");
            }
            text.append(line < lines - 1 || random.nextBoolean() ? random.nextInt(9) == 0 ? "\n" : end : "");
        }
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        if (charset == StandardCharsets.UTF_16LE || charset == StandardCharsets.UTF_16BE || random.nextInt(4) == 0) {
            bytes.writeBytes(
                    charset == StandardCharsets.ISO_8859_1 ? new byte[] {(byte) 0xE4} : "\uFEFF".getBytes(charset));
        }
        bytes.writeBytes(text.toString().getBytes(charset));
        return bytes.toByteArray();
    }

    private static List<EncodedText.Edit> edits(String text, Random random) {
        List<EncodedText.Edit> edits = new ArrayList<>();
        int at = 0;
        while (true) {
            int start = text.indexOf(random.nextBoolean() ? "feet" : "depth", at);
            if (start < 0 || random.nextInt(12) == 0) {
                return edits;
            }
            int end = random.nextInt(15) == 0 && text.indexOf('\n', start) > 0
                    ? text.indexOf('\n', start) + 1
                    : start + 4;
            edits.add(new EncodedText.Edit(
                    start, end, List.of("metres", "", "a\nb", "ü", "feet feet").get(random.nextInt(5))));
            at = end;
        }
    }

    /** The same by another way: on the text with all its signs, from the last edit to the first. */
    private static String naive(String raw, String text, List<EncodedText.Edit> edits) {
        int[] places = new int[text.length() + 1];
        int at = 0;
        for (int i = 0; i < raw.length(); i++) {
            if (!(raw.charAt(i) == '\r' && i + 1 < raw.length() && raw.charAt(i + 1) == '\n')) {
                places[at++] = i;
            }
        }
        places[at] = raw.length();
        StringBuilder out = new StringBuilder(raw);
        for (EncodedText.Edit edit : edits.reversed()) {
            int start = places[edit.start()];
            boolean before = edit.start() < text.length()
                    && text.charAt(edit.start()) == '\n'
                    && start > 0
                    && raw.charAt(start - 1) == '\r';
            int end = edit.end() == 0 ? 0 : places[edit.end() - 1] + 1;
            int feed = raw.indexOf('\n', start);
            feed = feed < 0 ? raw.lastIndexOf('\n', start) : feed;
            boolean isDos = feed > 0 && raw.charAt(feed - 1) == '\r';
            out.replace(
                    before ? start - 1 : start,
                    Math.max(start, end),
                    isDos ? edit.with().replace("\n", "\r\n") : edit.with());
        }
        return out.toString();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14})
    void areAppliedAndTakenBackByteForByte(long seed) throws IOException, InterruptedException {
        Random random = new Random(seed);
        git("init", "-q");
        List<String> names = List.of("plain.c", "a b.c", "ü.c", "tab\there.c", "quote\"d.c", "-x.c", "back\\slash.c");
        Map<String, byte[]> before = new HashMap<>();
        for (int i = 0; i < FILES; i++) {
            String path = "d" + i % 7 + "/" + i + names.get(random.nextInt(names.size()));
            before.put(path, file(random));
            Files.createDirectories(folder.resolve(path).getParent());
            Files.write(folder.resolve(path), before.get(path));
        }
        git("add", "-A", "-f");
        git("commit", "-q", "-m", "Before");
        PatchWriter patch = new PatchWriter();
        Map<String, byte[]> after = new HashMap<>();
        int changes = 0;
        int number = 0;
        for (Map.Entry<String, byte[]> file : before.entrySet()) {
            String path = file.getKey();
            String newPath = random.nextInt(3) > 0 ? path : "new " + ++number % 4 + "/" + path.replace(".c", "ä.c");
            EncodedText text = EncodedText.of(file.getValue()).orElse(null);
            List<EncodedText.Edit> edits = text == null ? List.of() : edits(text.text(), random);
            byte[] edited = edits.isEmpty() ? null : text.after(edits).orElse(null);
            if (edited == null || Arrays.equals(edited, file.getValue())) {
                after.put(newPath, file.getValue());
                if (!newPath.equals(path)) {
                    patch.rename(path, newPath);
                    changes++;
                }
                continue;
            }
            changes++;
            after.put(newPath, edited);
            if (newPath.equals(path)) {
                patch.add(path, file.getValue(), edited);
            } else {
                patch.rename(path, newPath, file.getValue(), edited);
            }
            assertThat(edited).as(path).isEqualTo(expected(file.getValue(), text, edits));
        }
        assertThat(changes).isGreaterThan(40);
        Path written = Files.write(folder.resolve(".git/the.patch"), patch.toBytes());
        git("apply", WITHOUT_WARNINGS, "--check", written.toString());
        git("apply", WITHOUT_WARNINGS, "--index", written.toString());
        for (Map.Entry<String, byte[]> file : after.entrySet()) {
            assertThat(Files.readAllBytes(folder.resolve(file.getKey())))
                    .as(file.getKey())
                    .isEqualTo(file.getValue());
        }
        assertThat(git("ls-files", "-z").chars().filter(each -> each == 0).count())
                .isEqualTo(FILES);
        git("apply", WITHOUT_WARNINGS, "-R", "--index", written.toString());
        assertThat(git("status", "--porcelain")).isEmpty();
    }

    @Test
    void asMailTheyAreCommitted() throws IOException, InterruptedException {
        git("init", "-q");
        Map<String, byte[]> before = Map.of(
                "a.c", "one\r\ntwo feet".getBytes(StandardCharsets.UTF_8),
                "ü b.c", "drei Fuß\n".getBytes(StandardCharsets.ISO_8859_1),
                "c.c", "\uFEFFfeet\n".getBytes(StandardCharsets.UTF_16LE));
        for (Map.Entry<String, byte[]> file : before.entrySet()) {
            Files.write(folder.resolve(file.getKey()), file.getValue());
        }
        git("add", "-A");
        git("commit", "-q", "-m", "Before");
        PatchWriter patch = new PatchWriter();
        Map<String, byte[]> after = new HashMap<>();
        for (Map.Entry<String, byte[]> file : new java.util.TreeMap<>(before).entrySet()) {
            EncodedText text = EncodedText.of(file.getValue()).orElseThrow();
            int at = Math.max(text.text().indexOf("feet"), text.text().indexOf("Fuß"));
            after.put(
                    file.getKey(),
                    text.after(List.of(new EncodedText.Edit(at, at + 3, "Mètre")))
                            .orElseThrow());
            patch.add(file.getKey(), file.getValue(), after.get(file.getKey()));
        }
        Path mail = Files.write(
                folder.resolve(".git/mail"),
                patch.toMail(
                        "Edda Voß <edda@quillhaven.example>",
                        Instant.parse("2026-05-01T08:00:00Z"),
                        "Metres instead of feet\n\nThe signs come first.\n"));
        git("am", "-q", "--keep-cr", WITHOUT_WARNINGS, mail.toString());
        for (Map.Entry<String, byte[]> file : after.entrySet()) {
            assertThat(Files.readAllBytes(folder.resolve(file.getKey())))
                    .as(file.getKey())
                    .isEqualTo(file.getValue());
        }
        assertThat(git("log", "-1", "--format=%an <%ae> %aI%n%B"))
                .isEqualTo(
                        "Edda Voß <edda@quillhaven.example> 2026-05-01T08:00:00+00:00\nMetres instead of feet\n\nThe signs come first.\n\n");
    }

    private static byte[] expected(byte[] file, EncodedText text, List<EncodedText.Edit> edits) {
        Charset charset = Charset.forName(text.encoding());
        int mark = file.length
                - new String(file, charset).replaceFirst("^\uFEFF", "").getBytes(charset).length;
        int skipped = charset == StandardCharsets.ISO_8859_1 ? 0 : mark;
        String raw = new String(file, skipped, file.length - skipped, charset);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(file, 0, skipped);
        out.writeBytes(naive(raw, text.text(), edits).getBytes(charset));
        return out.toByteArray();
    }
}
