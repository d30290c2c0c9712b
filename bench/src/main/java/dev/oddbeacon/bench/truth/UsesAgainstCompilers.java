package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.meaning.Certainty;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** Holds what we say of uses and of relatives against compilers, over folders of real source. */
public final class UsesAgainstCompilers {
    private static final int EACH = 300;
    private static final long SEED = 1;

    private UsesAgainstCompilers() {}

    /** What is to be done with a folder for scratch. */
    private interface Comparison<T> {
        T in(Path scratch) throws IOException;
    }

    /** Uses of what is drawn from the files below a folder against what their compiler says. */
    static UsesAgreement of(Path folder, CompilerUses told, int most) throws IOException {
        return compared(scratch -> {
            UsesAgreement agreement = new UsesAgreement();
            agreement.add(folder, told, most, SEED, scratch);
            return agreement;
        });
    }

    /** Relatives of what is drawn from the files below a folder against what their compiler says. */
    static RelativesAgreement relatives(Path folder, CompilerUses told, int most) throws IOException {
        return compared(scratch -> {
            RelativesAgreement agreement = new RelativesAgreement();
            agreement.add(folder, told, most, SEED, scratch);
            return agreement;
        });
    }

    private static <T> T compared(Comparison<T> comparison) throws IOException {
        Path scratch = Files.createTempDirectory("oddbeacon-uses");
        try {
            return comparison.in(scratch);
        } finally {
            try (Stream<Path> all = Files.walk(scratch)) {
                for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(path);
                }
            }
        }
    }

    /**
     * Prints figures.
     *
     * @param scripts the folder of those that ask other compilers
     * @param parts LANGUAGE, a folder, what else its compiler needs (for Java a class path), and "all" if it is to be
     * told where they differ
     */
    public static void print(Path scripts, List<String> parts) throws IOException {
        if (parts.size() < 2) {
            throw new IOException("Say what is to be compared: --against java,FOLDER,CLASSPATH");
        }
        Path folder = Path.of(parts.get(1));
        boolean tellsAll = parts.getLast().equals("all");
        CompilerUses told = parts.getFirst().equals("java")
                ? JavaUses.of(folder, parts.size() > 2 && !parts.get(2).equals("all") ? parts.get(2) : "")
                : CompilerUses.read(new ParserScripts(scripts).ask(ParserScripts.USES + parts.getFirst(), folder));
        UsesAgreement agreement = of(folder, told, EACH);
        agreement
                .byKind()
                .forEach((kind, counts) -> System.out.printf(
                        Locale.ROOT,
                        "%-8s %5d declarations, %6d uses: sure %.4f precision, %.4f recall; sure or likely %.4f recall; likely %.4f precision%n",
                        kind,
                        counts.declarations,
                        counts.uses,
                        counts.precision(Certainty.SURE),
                        counts.recall(Certainty.SURE),
                        counts.recall(Certainty.LIKELY),
                        counts.precision(Certainty.LIKELY)));
        System.out.printf(Locale.ROOT, "%.0f microseconds each%n", agreement.microsEach());
        RelativesAgreement relatives = relatives(folder, told, EACH);
        relatives
                .byQuestion()
                .forEach((question, counts) -> System.out.printf(
                        Locale.ROOT,
                        "%-14s %5d asked, %6d relatives: %.4f precision, %.4f recall%n",
                        question,
                        counts.asked,
                        counts.so,
                        counts.precision(),
                        counts.recall()));
        if (tellsAll) {
            agreement.examples().forEach(System.out::println);
            relatives.examples().forEach(System.out::println);
        }
    }
}
