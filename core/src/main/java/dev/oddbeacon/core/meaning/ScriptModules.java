package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

/** TypeScript: a module is a file, which may pass on what others have. */
final class ScriptModules implements Modules {
    private static final String DEFAULT = "default";
    private static final int MOST_MODULES = 500;
    private static final int MOST_KEPT = 20_000;
    private static final List<String> ENDINGS =
            List.of(".ts", ".tsx", ".mts", ".d.ts", "/index.ts", "/index.tsx", "/index.d.ts");
    private static final List<String> PACKAGE_FOLDERS = List.of("", "packages/", "libs/", "modules/");
    private static final List<String> SOURCE_FOLDERS = List.of("src/", "", "lib/");

    private final Types types;
    private final View view;
    private final Map<String, Optional<CodeFile>> resolved = new HashMap<>();
    private final Map<CodeFile, List<TypeScriptImports.Export>> exports = new HashMap<>();

    ScriptModules(Types types) {
        this.types = types;
        this.view = types.view();
    }

    @Override
    public boolean isOwn(CodeFile file, Spot spot) {
        return file.branchNumber() == spot.branchNumber() && file.file() == spot.file();
    }

    @Override
    public List<Spot> own(CodeFile file, String name) {
        return file.declarations().stream()
                .filter(one -> Types.isOutermost(one) && file.name(one).equals(name))
                .map(file::spot)
                .toList();
    }

    @Override
    public List<Spot> in(CodeFile file, String from, String name) {
        return resolve(file, from)
                .map(module -> exported(module, name, new HashSet<>()))
                .orElse(List.of());
    }

    private List<Spot> exported(CodeFile module, String name, Set<CodeFile> seen) {
        if (seen.size() > MOST_MODULES || !seen.add(module)) {
            return List.of();
        }
        List<Spot> own = name.equals(DEFAULT) ? List.of() : own(module, name);
        if (!own.isEmpty()) {
            return own;
        }
        for (TypeScriptImports.Export one : exports(module)) {
            List<Spot> found = List.of();
            if (one.isOfAll() && !name.equals(DEFAULT)) {
                found = passedOn(module, one.from(), name, seen);
            } else if (one.name().equals(name) && !one.original().isEmpty()) {
                found = one.from().isEmpty()
                        ? here(module, one.original(), seen)
                        : passedOn(module, one.from(), one.original(), seen);
            }
            if (!found.isEmpty()) {
                return found;
            }
        }
        return List.of();
    }

    /** What a name means in a module that exports it. */
    private List<Spot> here(CodeFile module, String name, Set<CodeFile> seen) {
        List<Spot> own = own(module, name);
        if (!own.isEmpty()) {
            return own;
        }
        return module.imports(Types.manner(module)).stream()
                .filter(one -> one.alias().equals(name) && !one.isModule())
                .map(one -> passedOn(module, one.from(), one.name(), seen))
                .filter(found -> !found.isEmpty())
                .findFirst()
                .orElse(List.of());
    }

    private List<Spot> passedOn(CodeFile module, String from, String name, Set<CodeFile> seen) {
        return resolve(module, from).map(other -> exported(other, name, seen)).orElse(List.of());
    }

    @Override
    public Optional<String> module(CodeFile file, String from, String name) {
        return resolve(file, from)
                .flatMap(module -> module(module, name, new HashSet<>()))
                .map(ScriptModules::path);
    }

    private Optional<CodeFile> module(CodeFile module, String name, Set<CodeFile> seen) {
        if (name.isEmpty() || seen.size() > MOST_MODULES || !seen.add(module)) {
            return Optional.empty();
        }
        for (TypeScriptImports.Export one : exports(module)) {
            Optional<CodeFile> found = Optional.empty();
            if (one.isOfAll()) {
                found = resolve(module, one.from()).flatMap(other -> module(other, name, seen));
            } else if (one.name().equals(name)) {
                found = one.isModule()
                        ? resolve(module, one.from())
                        : one.from().isEmpty()
                                ? module.imports(Types.manner(module)).stream()
                                        .filter(other -> other.isModule()
                                                && other.alias().equals(one.original()))
                                        .findFirst()
                                        .flatMap(other -> resolve(module, other.from()))
                                : resolve(module, one.from()).flatMap(other -> module(other, one.original(), seen));
            }
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private List<TypeScriptImports.Export> exports(CodeFile module) {
        return exports.computeIfAbsent(module, TypeScriptImports::exports);
    }

    /** How we name a file that was found; no import is written so. */
    private static String path(CodeFile module) {
        return "/" + module.branchNumber() + "/" + module.file();
    }

    private Optional<CodeFile> resolve(CodeFile file, String from) {
        if (from.startsWith("/")) {
            int slash = from.indexOf('/', 1);
            return slash < 0 || !from.substring(slash + 1).chars().allMatch(Character::isDigit)
                    ? Optional.empty()
                    : read(Integer.parseInt(from, 1, slash, 10), Integer.parseInt(from.substring(slash + 1)));
        }
        if (resolved.size() > MOST_KEPT) {
            resolved.clear();
        }
        String path = view.snapshot(file.branchNumber()).path(file.file());
        String folder = path.substring(0, path.lastIndexOf('/') + 1);
        Optional<CodeFile> known = resolved.get(file.branchNumber() + folder + " " + from);
        if (known == null) {
            known = from.startsWith(".")
                    ? joined(folder, from).flatMap(at -> at(file.branchNumber(), at))
                    : ofPackage(file.branchNumber(), from);
            resolved.put(file.branchNumber() + folder + " " + from, known);
        }
        return known;
    }

    /** A path that is written from a folder; empty if it leads out of the repository. */
    private static Optional<String> joined(String folder, String from) {
        List<String> parts = new ArrayList<>();
        for (String part : Split.parts(folder + from, '/')) {
            if (part.equals("..")) {
                if (parts.isEmpty()) {
                    return Optional.empty();
                }
                parts.removeLast();
            } else if (!part.isEmpty() && !part.equals(".")) {
                parts.add(part);
            }
        }
        return Optional.of(String.join("/", parts));
    }

    /** A file that is named with an ending or without, with that of what it is compiled to, or as a folder. */
    private Optional<CodeFile> at(int branch, String path) {
        int dot = path.lastIndexOf('.');
        String ending = dot > path.lastIndexOf('/') ? path.substring(dot) : "";
        boolean isCompiled = ending.equals(".js") || ending.equals(".mjs") || ending.equals(".jsx");
        List<String> tried = new ArrayList<>();
        if (ending.equals(".ts") || ending.equals(".tsx") || ending.equals(".mts")) {
            tried.add(path);
        }
        String stem = isCompiled ? path.substring(0, dot) : path;
        ENDINGS.forEach(one -> tried.add(stem.isEmpty() && one.startsWith("/") ? one.substring(1) : stem + one));
        SnapshotReader snapshot = view.snapshot(branch);
        for (String one : tried) {
            OptionalInt found = snapshot.find(one);
            if (found.isPresent()) {
                return read(branch, found.getAsInt());
            }
        }
        return Optional.empty();
    }

    private Optional<CodeFile> read(int branch, int file) {
        return types.file(branch, file).filter(one -> one.language().name().equals("typescript"));
    }

    /** A module of a package: a folder of its name in this repository, or another repository of that name. */
    private Optional<CodeFile> ofPackage(int branch, String from) {
        boolean isScoped = from.startsWith("@") && from.indexOf('/') > 0;
        String local = isScoped ? from.substring(from.indexOf('/') + 1) : from;
        int slash = local.indexOf('/');
        String name = slash < 0 ? local : local.substring(0, slash);
        String rest = slash < 0 ? "index" : local.substring(slash + 1);
        for (String above : PACKAGE_FOLDERS) {
            Optional<CodeFile> found = inPackage(branch, above + name + "/", rest);
            if (found.isPresent()) {
                return found;
            }
        }
        for (int other = 0; other < view.branches().size(); other++) {
            String repository = view.branch(other).repository();
            boolean isMeant = view.branch(other).isDefault()
                    && repository.substring(repository.lastIndexOf('/') + 1).equals(name);
            Optional<CodeFile> found = isMeant ? inPackage(other, "", rest) : Optional.empty();
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private Optional<CodeFile> inPackage(int branch, String folder, String rest) {
        return SOURCE_FOLDERS.stream()
                .flatMap(source -> at(branch, folder + source + rest).stream())
                .findFirst();
    }
}
