import java.io.IOException;
import java.lang.classfile.ClassFile;
import java.lang.classfile.CodeElement;
import java.lang.classfile.CodeModel;
import java.lang.classfile.instruction.InvokeInstruction;
import java.lang.classfile.instruction.StoreInstruction;
import java.net.URI;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.spi.ToolProvider;

/**
 * Runs jlink until it writes what it always writes: {@code FOLDER MODULES}. Its table of modules has a few sets that
 * several of them share, in the order in which it came upon them; with an incubating module that depends on a number
 * that each run of the Java runtime draws. Of the orders, the one in which these sets grow is taken; one that drew
 * another ends with {@link #DRAW_AGAIN}, and is to be started again.
 */
final class Link {
    private static final int DRAW_AGAIN = 75;
    private static final String TABLE = "/modules/java.base/jdk/internal/module/SystemModules$all.class";

    private Link() {}

    public static void main(String... arguments) throws IOException {
        int status = ToolProvider.findFirst("jlink")
                .orElseThrow()
                .run(
                        System.out,
                        System.err,
                        "--output",
                        arguments[0],
                        "--add-modules",
                        arguments[1],
                        "--no-header-files",
                        "--no-man-pages",
                        "--generate-cds-archive");
        System.exit(status == 0 && !growing(Path.of(arguments[0])) ? DRAW_AGAIN : status);
    }

    private static boolean growing(Path runtime) throws IOException {
        try (FileSystem files = FileSystems.newFileSystem(URI.create("jrt:/"), Map.of("java.home", runtime.toString()))) {
            return ClassFile.of().parse(Files.readAllBytes(files.getPath(TABLE))).methods().stream()
                    .allMatch(method -> method.code().map(Link::growing).orElse(true));
        }
    }

    /** Whether sets that are kept for later use come in the order of their sizes. */
    private static boolean growing(CodeModel code) {
        int last = 0;
        int size = 0; // of a set that was just made
        for (CodeElement element : code) {
            if (element instanceof InvokeInstruction call && call.owner().asInternalName().equals("java/util/Set")) {
                size = call.typeSymbol().parameterCount();
                continue;
            }
            if (element instanceof StoreInstruction && size > 0) {
                if (size < last) {
                    return false;
                }
                last = size;
            }
            size = 0;
        }
        return true;
    }
}
