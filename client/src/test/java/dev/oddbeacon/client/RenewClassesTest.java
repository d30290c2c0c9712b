package dev.oddbeacon.client;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.classfile.ClassFile;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.jar.JarFile;
import java.util.zip.ZipEntry;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

class RenewClassesTest {
    @TempDir
    private Path folder;

    @Test
    void everyClassIsYoungEnoughForACacheAndVerifies() throws Exception {
        Path library = Path.of(CommandLine.class
                .getProtectionDomain()
                .getCodeSource()
                .getLocation()
                .toURI());
        Path jar = Files.copy(library, folder.resolve("library.jar"));
        renew(jar);
        List<String> names;
        try (JarFile in = new JarFile(jar.toFile())) {
            names = in.stream()
                    .map(ZipEntry::getName)
                    .filter(name -> name.endsWith(".class") && !name.contains("module-info"))
                    .toList();
            for (String name : names) {
                byte[] bytes = in.getInputStream(in.getEntry(name)).readAllBytes();
                assertThat(ClassFile.of().parse(bytes).majorVersion())
                        .as(name)
                        .isGreaterThanOrEqualTo(ClassFile.JAVA_6_VERSION);
            }
        }
        assertThat(names).hasSizeGreaterThan(100);
        try (URLClassLoader loader =
                new URLClassLoader(new URL[] {jar.toUri().toURL()}, ClassLoader.getPlatformClassLoader())) {
            for (String name : names) {
                String type =
                        name.substring(0, name.length() - ".class".length()).replace('/', '.');
                assertThat(Class.forName(type, true, loader)).as(name).isNotNull();
            }
        }
        byte[] once = Files.readAllBytes(jar);
        renew(jar);
        assertThat(jar).as("a second time changes nothing").hasBinaryContent(once);
        assertThat(folder).isDirectoryNotContaining("glob:**.unfinished");
    }

    private static void renew(Path jar) throws Exception {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        Process process = new ProcessBuilder(java, "src/build/RenewClasses.java", jar.toString())
                .inheritIO()
                .start();
        assertThat(process.waitFor()).isZero();
    }
}
