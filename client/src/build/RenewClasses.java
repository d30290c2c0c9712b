import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.lang.classfile.ClassFile;
import java.lang.classfile.ClassFileVersion;
import java.lang.classfile.ClassHierarchyResolver;
import java.lang.classfile.ClassTransform;
import java.lang.classfile.CodeBuilder;
import java.lang.classfile.MethodModel;
import java.lang.classfile.MethodTransform;
import java.lang.constant.ClassDesc;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Enumeration;
import java.util.jar.JarEntry;
import java.util.jar.JarFile;
import java.util.jar.JarOutputStream;

/**
 * Writes the classes of a jar as later compilers would. A cache of classes takes none from before Java 6, whose code
 * lacks the frames that let it be verified quickly; what they do stays the same. Run by the build, in the place of the
 * jar; a jar without such classes stays as it is.
 */
final class RenewClasses {
    private static final int FIRST_WITH_FRAMES = ClassFile.JAVA_6_VERSION;
    private static final int WRITTEN = ClassFile.JAVA_17_VERSION;

    private RenewClasses() {}

    public static void main(String... jars) throws IOException {
        for (String jar : jars) {
            Path path = Path.of(jar);
            Path renewed = path.resolveSibling(path.getFileName() + ".unfinished");
            if (renew(path, renewed)) {
                Files.move(renewed, path, StandardCopyOption.ATOMIC_MOVE);
            } else {
                Files.delete(renewed);
            }
        }
    }

    /** @return whether a class was renewed */
    private static boolean renew(Path from, Path to) throws IOException {
        boolean changes = false;
        try (JarFile in = new JarFile(from.toFile());
                JarOutputStream out = new JarOutputStream(Files.newOutputStream(to))) {
            ClassFile classes = ClassFile.of(
                    ClassFile.StackMapsOption.GENERATE_STACK_MAPS,
                    ClassFile.ClassHierarchyResolverOption.of(
                            ClassHierarchyResolver.ofResourceParsing(each -> resource(in, each))
                                    .orElse(ClassHierarchyResolver.defaultResolver())));
            for (Enumeration<JarEntry> entries = in.entries(); entries.hasMoreElements(); ) {
                JarEntry entry = entries.nextElement();
                byte[] bytes = in.getInputStream(entry).readAllBytes();
                if (entry.getName().endsWith(".class") && version(bytes) < FIRST_WITH_FRAMES) {
                    bytes = renewed(classes, bytes);
                    changes = true;
                }
                JarEntry written = new JarEntry(entry.getName());
                written.setTime(entry.getTime());
                out.putNextEntry(written);
                out.write(bytes);
            }
        }
        return changes;
    }

    private static int version(byte[] bytes) {
        return (bytes[6] & 0xFF) << 8 | bytes[7] & 0xFF;
    }

    private static byte[] renewed(ClassFile classes, byte[] bytes) {
        MethodTransform code = MethodTransform.transformingCode(CodeBuilder::with);
        ClassTransform all = (builder, element) -> {
            switch (element) {
                case ClassFileVersion _ -> builder.withVersion(WRITTEN, 0);
                case MethodModel method -> builder.transformMethod(method, code);
                default -> builder.with(element);
            }
        };
        return classes.transformClass(classes.parse(bytes), all);
    }

    /** A class of the jar; null for one of the JDK. */
    private static InputStream resource(JarFile jar, ClassDesc type) {
        String descriptor = type.descriptorString(); // as Lpackage/Name;
        JarEntry entry = jar.getJarEntry(descriptor.substring(1, descriptor.length() - 1) + ".class");
        try {
            return entry == null ? null : jar.getInputStream(entry);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
