package dev.oddbeacon.core.source;

import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.core.text.regex.FixedPattern;
import java.util.Collection;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * The traits of a file, each with the reason: by the conventions of many ecosystems for names and folders, and by
 * what the content says. In trees of packages ({@code org/quillhaven/test/...}) the names of packages are not
 * conventions: such folders count only up to the root of the packages.
 */
public final class Traits {
    private static final Set<String> TEST_FOLDERS = Set.of(
            "test",
            "tests",
            "spec",
            "specs",
            "__tests__",
            "__mocks__",
            "__snapshots__",
            "testdata",
            "test-data",
            "test_data",
            "fixtures",
            "__fixtures__",
            "testing",
            "unittest",
            "unittests",
            "e2e",
            "cypress",
            "integration-tests",
            "integration_tests",
            "integrationtest",
            "androidtest",
            "testfixtures",
            "selftests",
            "jvmtest",
            "commontest",
            "functionaltest",
            "inttest",
            "src-test",
            "test-suite",
            "testsuite");
    private static final FixedPattern TEST_NAME = FixedPattern.ofWhole(
            "(?:.*_test\\.(?:go|py|rb|c|cc|cpp|cxx|rs|dart|exs|php|ts|js|lua|sh|jl|scala)|test_.*\\.(?:py|c|cc|cpp|rb|sh|lua|jl|php)"
                    + "|.*[._-](?:test|tests|spec|specs|e2e|cy|stories)\\.[cm]?[jt]sx?|.*_spec\\.(?:rb|lua|cr|moon)|.*\\.(?:test|spec)\\.(?:vue|snap)|.*\\.snap|conftest\\.py|.*\\.bats|.*\\.feature|.*_test\\.exs|.*-test\\.el)");
    private static final FixedPattern TEST_CLASS = FixedPattern.ofWhole(
            ".*[a-z0-9_](?:Test|Tests|TestCase|IT|ITCase)\\.(?:java|kt|kts|groovy|scala|cs|fs|vb|swift|php|m|mm)|.*[a-z0-9_]Specs?\\.(?:kt|groovy|scala|swift)");
    private static final Set<String> VENDOR_FOLDERS = Set.of(
            "vendor",
            "vendored",
            "_vendor",
            "third_party",
            "third-party",
            "thirdparty",
            "3rdparty",
            "3rd-party",
            "3rd_party",
            "node_modules",
            "bower_components",
            "jspm_packages",
            "pods",
            "carthage",
            "godeps",
            "site-packages",
            "externals",
            "web_modules",
            ".yarn",
            "flow-typed");
    private static final Set<String> VENDORED_NAMES = Set.of(
            "gradlew",
            "gradlew.bat",
            "mvnw",
            "mvnw.cmd",
            "mavenwrapperdownloader.java",
            "gradle-wrapper.properties",
            "gradle-wrapper.jar",
            "maven-wrapper.properties",
            "maven-wrapper.jar",
            "config.guess",
            "config.sub",
            "install-sh",
            "ltmain.sh",
            "missing",
            "depcomp",
            "aclocal.m4");
    private static final Set<String> GENERATED_FOLDERS = Set.of(
            "generated",
            "__generated__",
            "_generated",
            "generated-sources",
            "generated-src",
            "autogen",
            "__pycache__",
            "gen-src",
            "src-gen",
            "src-generated");
    private static final FixedPattern GENERATED_NAME = FixedPattern.ofWhole(
            "(?:.*\\.pb\\.(?:go|cc|h|validate\\.go|gw\\.go)|.*_pb2(?:_grpc)?\\.pyi?|.*_pb\\.(?:js|ts|rb|d\\.ts)|.*\\.pb\\.\\w+|.*[._-]generated\\..*|.*\\.gen\\.\\w+|.*_gen\\.go"
                    + "|.*\\.g(?:\\.freezed)?\\.dart|.*\\.g\\.cs|.*\\.designer\\.(?:cs|vb)|zz_generated.*|.*\\.(?:js|css|mjs|cjs|ts)\\.map|bindata\\.go|.*_string\\.go"
                    + "|package-lock\\.json|npm-shrinkwrap\\.json|yarn\\.lock|pnpm-lock\\.yaml|bun\\.lockb?|gemfile\\.lock|cargo\\.lock|poetry\\.lock|uv\\.lock|pdm\\.lock|pipfile\\.lock|composer\\.lock|go\\.sum|go\\.work\\.sum"
                    + "|flake\\.lock|mix\\.lock|pubspec\\.lock|podfile\\.lock|packages\\.lock\\.json|deno\\.lock|gradle\\.lockfile|\\.terraform\\.lock\\.hcl|package\\.resolved)");
    private static final FixedPattern MINIFIED_NAME = FixedPattern.ofWhole(".*[.-]min\\.(?:js|css|mjs|cjs|map)");
    private static final Set<String> PACKED_TYPES = Set.of("javascript", "css", "typescript");
    private static final Set<String> TRANSLATION_FOLDERS = Set.of(
            "locale",
            "locales",
            "i18n",
            "l10n",
            "lang",
            "langs",
            "languages",
            "translations",
            "translation",
            "lc_messages",
            "nls",
            "intl");
    private static final FixedPattern TRANSLATED_VALUES = FixedPattern.ofWhole("values-[a-z]{2}(?:-r[a-z]{2})?");
    private static final Set<String> TEXTS =
            Set.of("json", "yaml", "properties", "xml", "ini", "toml", "gettext", "csv");
    private static final FixedPattern LANGUAGE_AND_REGION =
            FixedPattern.ofWhole("[a-z]{2,3}[-_](?:[a-z]{2}|[a-z]{4}|[0-9]{3})(?:[-_][a-z]{2})?");
    private static final Set<String> LANGUAGES = Set.of(Locale.getISOLanguages());
    private static final FixedPattern TRANSLATION_NAME = FixedPattern.ofWhole(
            "(?:.*\\.(?:po|pot|xlf|xliff|arb|strings|stringsdict|xcstrings|ftl)|.*\\.[a-z]{2}(?:-[a-z]{2,4})?\\.resx|(?:.*[_.-])?(?:messages|labels|strings|texts|resources|translations|validationmessages|bundle|i18n)_[a-z]{2}(?:_[a-z]{2,4})?\\.(?:properties|json|ya?ml))");
    private static final Set<String> DOCUMENT_TYPES =
            Set.of("markdown", "rst", "asciidoc", "tex", "texinfo", "troff", "bibtex");
    private static final Set<String> DOCUMENT_FOLDERS =
            Set.of("doc", "docs", "documentation", "man", "manual", "javadoc", "apidoc", "doxygen", "doc-files");
    private static final FixedPattern DOCUMENT_NAME = FixedPattern.ofWhole(
            "(?:readme|changelog|changes|history|news|license|licence|copying|copyright|notice|authors|contributors|contributing|maintainers|credits|thanks|todo|install|upgrading"
                    + "|code_of_conduct|security|support|patents|third-party-notices|thirdpartynotices|release[-_]?notes|unlicense)(?:[._-].*)?");
    private static final Set<String> CODE_ENDINGS = Set.of(
            "js",
            "ts",
            "py",
            "rb",
            "go",
            "java",
            "kt",
            "c",
            "h",
            "cc",
            "cpp",
            "cs",
            "php",
            "rs",
            "sh",
            "vue",
            "tsx",
            "jsx",
            "mjs",
            "cjs",
            "swift",
            "scala",
            "pl",
            "pm",
            "lua",
            "mk",
            "sql",
            "css",
            "html",
            "yml",
            "yaml",
            "json",
            "xml",
            "toml",
            "properties");
    private static final Set<String> CONFIGURATION_TYPES =
            Set.of("toml", "ini", "properties", "hcl", "kconfig", "git", "gomod", "dockerfile");
    private static final Set<String> CONFIGURATION_FOLDERS = Set.of(
            "config",
            "configs",
            "conf",
            "etc",
            ".github",
            ".gitlab",
            ".circleci",
            ".vscode",
            ".idea",
            ".mvn",
            ".husky",
            ".devcontainer",
            ".config",
            "settings");
    private static final Set<String> DATA = Set.of("json", "yaml", "xml", "ini", "toml", "properties", "hcl");
    private static final FixedPattern CONFIGURATION_NAME = FixedPattern.ofWhole(
            "(?:package\\.json|tsconfig.*\\.json|jsconfig\\.json|composer\\.json|bower\\.json|lerna\\.json|nx\\.json|turbo\\.json|deno\\.jsonc?|pom\\.xml|ivy\\.xml|build\\.xml|web\\.xml"
                    + "|.*\\.(?:gradle|gradle\\.kts|sbt|csproj|vbproj|fsproj|sln|gemspec|cabal|podspec|conf|cnf|cfg|ini|editorconfig|service|socket|timer|iml|props|targets)|gemfile|rakefile|pipfile|setup\\.(?:py|cfg)|pyproject\\.toml|requirements.*\\.txt|tox\\.ini|go\\.mod"
                    + "|cargo\\.toml|.*\\.config\\.[cm]?[jt]s|\\.[a-z].*rc(?:\\.(?:json|ya?ml|[cm]?js|toml))?|\\.env(?:\\..*)?|docker-compose.*\\.ya?ml|compose.*\\.ya?ml|dockerfile.*|\\.gitlab-ci\\.yml|\\.travis\\.yml|appveyor\\.yml|azure-pipelines\\.yml"
                    + "|application.*\\.(?:ya?ml|properties)|bootstrap.*\\.(?:ya?ml|properties)|logback.*\\.xml|log4j.*\\.(?:xml|properties)|_config\\.ya?ml|mkdocs\\.yml|meson\\.build|meson_options\\.txt|cmakelists\\.txt|cmakepresets\\.json|vagrantfile|procfile"
                    + "|.*_defconfig|defconfig|kconfig.*|jenkinsfile.*|\\.pre-commit-config\\.yaml|renovate\\.json|dependabot\\.yml|codecov\\.yml|\\.clang-.*|manifest\\.mf|module\\.bazel|workspace(?:\\.bazel)?)");
    private static final Set<String> PACKAGED = Set.of("java", "kotlin", "scala", "groovy", "clojure");
    private static final Set<String> PACKAGE_ROOTS = Set.of(
            "org", "com", "net", "io", "dev", "edu", "de", "uk", "fr", "ch", "eu", "javax", "java", "jakarta", "kotlin",
            "kotlinx", "scala", "jdk", "sun", "app", "me", "junit");

    /** The bit of a test, see {@link #mask}. */
    public static final int TESTS = mask(Set.of(Trait.TEST));
    /** The bits of what nobody of the team writes by hand. */
    public static final int FOREIGN = mask(Set.of(Trait.GENERATED, Trait.VENDORED, Trait.MINIFIED));

    /** The bit of documentation. */
    public static final int DOCUMENTATION = mask(Set.of(Trait.DOCUMENTATION));

    private Traits() {}

    /**
     * The traits of a file and why it has them, in words.
     *
     * @param type its type
     * @param isText whether it has a text
     */
    public static Map<Trait, String> of(String path, String type, Signs signs, boolean isText) {
        Map<Trait, String> traits = new EnumMap<>(Trait.class);
        String[] parts = Split.names(path).toArray(String[]::new);
        String original = parts[parts.length - 1];
        String name = original.toLowerCase(Locale.ROOT);
        int folders = conventionalFolders(parts, type);
        for (int i = 0; i < folders; i++) {
            folder(parts[i].toLowerCase(Locale.ROOT), parts[i], type, name, parts, traits);
        }
        if (TEST_NAME.isIn(name)
                || TEST_CLASS.isIn(original) && !original.contains("UnderTest")
                || name.endsWith(".t") && type.equals("perl")) {
            traits.put(Trait.TEST, "named " + original);
        }
        if (VENDORED_NAMES.contains(name)) {
            traits.put(Trait.VENDORED, "named " + original);
        }
        if (GENERATED_NAME.isIn(name)) {
            traits.put(Trait.GENERATED, "named " + original);
        } else if (signs.generated()) {
            traits.put(Trait.GENERATED, "its first comments say so");
        }
        if (MINIFIED_NAME.isIn(name)) {
            traits.put(Trait.MINIFIED, "named " + original);
        } else if (signs.packed() && PACKED_TYPES.contains(type)) {
            traits.put(Trait.MINIFIED, "nearly all of it stands in lines of more than 500 characters");
        }
        if (TRANSLATION_NAME.isIn(name) || type.equals("gettext")) {
            traits.put(Trait.TRANSLATION, "named " + original);
        }
        documentation(original, name, type, traits);
        configuration(parts, original, name, type, traits);
        if (!isText) {
            traits.put(Trait.BINARY, "it has no text");
        }
        return traits;
    }

    /** Number of leading folders that may follow a convention. */
    private static int conventionalFolders(String[] parts, String type) {
        if (PACKAGED.contains(type)) {
            for (int i = 0; i < parts.length - 1; i++) {
                if (PACKAGE_ROOTS.contains(parts[i]) || i > 0 && parts[i - 1].equals("main") && parts[i].equals(type)) {
                    return i;
                }
            }
        }
        return parts.length - 1;
    }

    private static void folder(
            String folder, String original, String type, String name, String[] parts, Map<Trait, String> traits) {
        String why = "in a folder " + original;
        if (TEST_FOLDERS.contains(folder) || folder.equals("t") && type.equals("perl")) {
            traits.putIfAbsent(Trait.TEST, why);
        }
        if (VENDOR_FOLDERS.contains(folder)) {
            traits.putIfAbsent(Trait.VENDORED, why);
        }
        if (GENERATED_FOLDERS.contains(folder)) {
            traits.putIfAbsent(Trait.GENERATED, why);
        }
        if (isForTranslations(folder, type, name, parts)) {
            traits.putIfAbsent(Trait.TRANSLATION, why);
        }
        if (DOCUMENT_FOLDERS.contains(folder)) {
            traits.putIfAbsent(Trait.DOCUMENTATION, why);
        }
        if (CONFIGURATION_FOLDERS.contains(folder) && DATA.contains(type)) {
            traits.putIfAbsent(Trait.CONFIGURATION, why);
        }
    }

    private static boolean isForTranslations(String folder, String type, String name, String[] parts) {
        if (folder.endsWith(".lproj") || TRANSLATED_VALUES.isIn(folder) && type.equals("xml")) {
            return true;
        }
        if (!TRANSLATION_FOLDERS.contains(folder)) {
            return false;
        }
        String stem = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        String above = parts.length > 1 ? parts[parts.length - 2] : "";
        return TEXTS.contains(type) || isLanguage(stem) || type.equals("php") && isLanguage(above);
    }

    private static boolean isLanguage(String name) {
        return LANGUAGES.contains(name.toLowerCase(Locale.ROOT))
                || LANGUAGE_AND_REGION.isIn(name.toLowerCase(Locale.ROOT));
    }

    private static void documentation(String original, String name, String type, Map<Trait, String> traits) {
        if (DOCUMENT_TYPES.contains(type)) {
            traits.putIfAbsent(Trait.DOCUMENTATION, "written in " + type);
        } else if (DOCUMENT_NAME.isIn(name) && !CODE_ENDINGS.contains(name.substring(name.lastIndexOf('.') + 1))) {
            traits.putIfAbsent(Trait.DOCUMENTATION, "named " + original);
        }
    }

    private static void configuration(
            String[] parts, String original, String name, String type, Map<Trait, String> traits) {
        if (traits.containsKey(Trait.TRANSLATION) || traits.containsKey(Trait.DOCUMENTATION)) {
            return;
        }
        boolean isHiddenData = original.startsWith(".") && (DATA.contains(type) || parts.length == 1);
        if (CONFIGURATION_NAME.isIn(name) || isHiddenData) {
            traits.putIfAbsent(Trait.CONFIGURATION, "named " + original);
        } else if (CONFIGURATION_TYPES.contains(type) && !traits.containsKey(Trait.GENERATED)) {
            traits.putIfAbsent(Trait.CONFIGURATION, "written in " + type);
        }
    }

    /** The traits of a file by its path alone, as a mask: the file may be gone. */
    public static int ofPath(String path) {
        return mask(of(path, FileTypes.ofPath(path), Signs.NONE, true).keySet());
    }

    /** Traits as a bit mask. */
    public static int mask(Collection<Trait> traits) {
        return traits.stream().mapToInt(trait -> trait.mask()).reduce(0, (a, b) -> a | b);
    }

    /** The traits of a bit mask. */
    public static Set<Trait> of(int mask) {
        Set<Trait> traits = EnumSet.noneOf(Trait.class);
        for (Trait trait : Trait.values()) {
            if ((mask & trait.mask()) != 0) {
                traits.add(trait);
            }
        }
        return traits;
    }

    /** The labels of the bits of a number. */
    public static List<String> labels(int mask) {
        return of(mask).stream().map(Trait::label).toList();
    }
}
