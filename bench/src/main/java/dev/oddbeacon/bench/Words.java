package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;

/** Texts drawn from the lines of a source tree, the same ones in every run with the same seed. */
final class Words {
    private static long seed = 20_260_131L;

    private final Random random = new Random(seed);
    private final List<Path> files;

    Words(Path source) throws IOException {
        try (Stream<Path> all = Files.walk(source)) {
            files = all.filter(file -> Files.isRegularFile(file) && !isOfGit(source.relativize(file)))
                    .sorted()
                    .toList();
        }
    }

    private static boolean isOfGit(Path file) {
        return StreamSupport.stream(file.spliterator(), false)
                .anyMatch(part -> part.toString().equals(".git"));
    }

    /** Has others drawn than by default, from the next one on. */
    static void drawBy(long otherSeed) {
        seed = otherSeed;
    }

    /** Texts of 4 to 23 characters, none of them blank. */
    List<String> texts(int count) throws IOException {
        List<String> texts = new ArrayList<>();
        while (texts.size() < count) {
            String line = line();
            int length = 4 + random.nextInt(20);
            if (line.length() >= length) {
                int start = random.nextInt(line.length() - length + 1);
                String text = line.substring(start, start + length);
                if (!text.isBlank() && text.chars().allMatch(c -> c >= 0x20 && c < 0x7F)) {
                    texts.add(text);
                }
            }
        }
        return texts;
    }

    /** Whole words of at least four letters. */
    List<String> words(int count) throws IOException {
        List<String> words = new ArrayList<>();
        while (words.size() < count) {
            String[] parts = line().split("[^A-Za-z_]+");
            String word = parts.length == 0 ? "" : parts[random.nextInt(parts.length)];
            if (word.length() >= 4) {
                words.add(word);
            }
        }
        return words;
    }

    /** Names of at least four letters in front of a parenthesis. */
    List<String> called(int count) throws IOException {
        List<String> names = new ArrayList<>();
        Pattern call = Pattern.compile("\\b([a-z_][a-z_0-9]{3,})\\(");
        while (names.size() < count) {
            Matcher matcher = call.matcher(line());
            if (matcher.find() && !matcher.group(1).equals("sizeof")) {
                names.add(matcher.group(1));
            }
        }
        return names;
    }

    /** Lines of comments, of at least so many characters in ASCII, each with the file that it is drawn from. */
    List<Sentence> sentences(int count, int shortest) throws IOException {
        List<Sentence> sentences = new ArrayList<>();
        Pattern comment = Pattern.compile("(?:\\*|//|#)\\s+([A-Za-z][ -~]*[a-z.])");
        while (sentences.size() < count) {
            Path file = file();
            Matcher matcher = comment.matcher(line(file));
            if (matcher.matches() && matcher.group(1).length() >= shortest) {
                sentences.add(new Sentence(file, matcher.group(1)));
            }
        }
        return sentences;
    }

    Path file() {
        return files.get(random.nextInt(files.size()));
    }

    <T> T oneOf(List<T> all) {
        return all.get(random.nextInt(all.size()));
    }

    record Sentence(Path file, String text) {}

    private String line() throws IOException {
        return line(file());
    }

    private String line(Path file) throws IOException {
        List<String> lines =
                Files.readString(file, StandardCharsets.ISO_8859_1).lines().toList();
        return lines.isEmpty() ? "" : lines.get(random.nextInt(lines.size())).strip();
    }
}
