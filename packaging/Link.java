import java.util.Set;
import java.util.spi.ToolProvider;

/**
 * Runs jlink where it always writes the same. Its table of modules follows the order of a set of two, which each run of
 * the Java runtime draws anew; one that drew the other order ends with {@link #DRAW_AGAIN}, and is to be started again.
 */
final class Link {
    private static final int DRAW_AGAIN = 75;

    private Link() {}

    public static void main(String... arguments) {
        if (!Set.of("a", "b").iterator().next().equals("a")) {
            System.exit(DRAW_AGAIN);
        }
        System.exit(ToolProvider.findFirst("jlink").orElseThrow().run(System.out, System.err, arguments));
    }
}
