package dev.oddbeacon.core.source;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;

/** The type of a file, by its name for now: whole names first, then endings. */
public final class FileTypes {
    /** What a file is that no pattern fits. */
    public static final String TEXT = "text";

    private static final Map<String, String> BY_NAME = new HashMap<>();
    private static final Map<String, String> BY_ENDING = new HashMap<>();

    static {
        names("make", "makefile", "gnumakefile", "kbuild");
        names("dockerfile", "dockerfile", "containerfile");
        names("ruby", "gemfile", "rakefile");
        names("cmake", "cmakelists.txt");
        endings("java", "java");
        endings("kotlin", "kt", "kts");
        endings("scala", "scala");
        endings("c", "c", "h");
        endings("cpp", "cc", "cpp", "cxx", "hh", "hpp", "hxx");
        endings("csharp", "cs");
        endings("go", "go");
        endings("rust", "rs");
        endings("swift", "swift");
        endings("javascript", "js", "mjs", "cjs", "jsx");
        endings("typescript", "ts", "mts", "cts", "tsx");
        endings("vue", "vue");
        endings("python", "py", "pyi");
        endings("ruby", "rb", "rake", "gemspec", "erb");
        endings("php", "php");
        endings("shell", "sh", "bash", "zsh");
        endings("sql", "sql");
        endings("lua", "lua");
        endings("perl", "pl", "pm");
        endings("html", "html", "htm");
        endings("css", "css", "scss");
        endings("xml", "xml", "xsd", "xsl", "svg");
        endings("json", "json");
        endings("yaml", "yaml", "yml");
        endings("toml", "toml");
        endings("properties", "properties");
        endings("markdown", "md", "markdown");
        endings("assembler", "s", "asm");
        endings("make", "mk");
        endings("image", "png", "jpg", "jpeg", "gif", "webp", "ico");
    }

    private FileTypes() {}

    private static void names(String type, String... names) {
        for (String name : names) {
            BY_NAME.put(name, type);
        }
    }

    private static void endings(String type, String... endings) {
        for (String ending : endings) {
            BY_ENDING.put(ending, type);
        }
    }

    public static String of(String path) {
        String name = path.substring(path.lastIndexOf('/') + 1).toLowerCase(Locale.ROOT);
        String byName = BY_NAME.get(name);
        if (byName != null) {
            return byName;
        }
        int dot = name.lastIndexOf('.');
        return dot < 0 ? TEXT : BY_ENDING.getOrDefault(name.substring(dot + 1), TEXT);
    }
}
