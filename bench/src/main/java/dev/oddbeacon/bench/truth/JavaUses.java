package dev.oddbeacon.bench.truth;

import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.IdentifierTree;
import com.sun.source.tree.MemberReferenceTree;
import com.sun.source.tree.MemberSelectTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreePathScanner;
import com.sun.source.util.Trees;
import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import javax.lang.model.element.Element;
import javax.lang.model.element.ElementKind;
import javax.lang.model.element.ExecutableElement;
import javax.lang.model.element.TypeElement;
import javax.lang.model.util.ElementFilter;
import javax.lang.model.util.Elements;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;

/** Asks the JDK's compiler which declaration each name in some files means. */
final class JavaUses {
    private JavaUses() {}

    static CompilerUses of(Path folder, String classPath) throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.walk(folder)) {
            files = all.filter(path -> path.toString().endsWith(".java") && !path.endsWith("module-info.java"))
                    .sorted()
                    .toList();
        }
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        List<CompilerUses.Use> uses = new ArrayList<>();
        Set<CompilerUses.Place> elsewhere = new HashSet<>();
        List<CompilerUses.Relation> relations = new ArrayList<>();
        try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, null)) {
            List<String> all = new ArrayList<>(
                    List.of("-proc:none", "-implicit:none", "-Xmaxerrs", "100000", "--class-path", classPath));
            JavacTask task = (JavacTask) compiler.getTask(
                    Writer.nullWriter(), manager, _ -> {}, all, null, manager.getJavaFileObjectsFromPaths(files));
            List<CompilationUnitTree> units = new ArrayList<>();
            task.parse().forEach(units::add);
            task.analyze();
            Trees trees = Trees.instance(task);
            Map<Element, CompilerUses.Place> declared = new HashMap<>();
            Map<TypeElement, CompilerUses.Place> types = new HashMap<>();
            for (CompilationUnitTree unit : units) {
                new Declared(folder, unit, trees, declared, types).scan(unit, null);
            }
            types.forEach((type, place) -> relate(task, type, place, declared, types, relations));
            for (CompilationUnitTree unit : units) {
                new Used(folder, unit, trees, task.getElements(), declared, uses, elsewhere).scan(unit, null);
            }
        }
        return new CompilerUses(uses, elsewhere, relations);
    }

    /** What a type extends, and what its methods override. */
    private static void relate(
            JavacTask task,
            TypeElement type,
            CompilerUses.Place place,
            Map<Element, CompilerUses.Place> declared,
            Map<TypeElement, CompilerUses.Place> types,
            List<CompilerUses.Relation> into) {
        for (TypeElement above : above(task, type)) {
            if (types.containsKey(above)) {
                into.add(new CompilerUses.Relation(CompilerUses.Relating.EXTENDS, place, types.get(above)));
            }
        }
        Set<TypeElement> all = new LinkedHashSet<>();
        List<TypeElement> open = new ArrayList<>(above(task, type));
        while (!open.isEmpty()) {
            TypeElement one = open.removeLast();
            if (all.add(one)) {
                open.addAll(above(task, one));
            }
        }
        for (ExecutableElement method : ElementFilter.methodsIn(type.getEnclosedElements())) {
            for (TypeElement one : all) {
                for (ExecutableElement other : ElementFilter.methodsIn(one.getEnclosedElements())) {
                    boolean isRelated = declared.containsKey(method)
                            && declared.containsKey(other)
                            && method.getSimpleName().equals(other.getSimpleName())
                            && task.getElements().overrides(method, other, type);
                    if (isRelated) {
                        into.add(new CompilerUses.Relation(
                                CompilerUses.Relating.OVERRIDES, declared.get(method), declared.get(other)));
                    }
                }
            }
        }
    }

    private static List<TypeElement> above(JavacTask task, TypeElement type) {
        return task.getTypes().directSupertypes(type.asType()).stream()
                .map(one -> (TypeElement) task.getTypes().asElement(one))
                .filter(Objects::nonNull)
                .toList();
    }

    private abstract static class Names extends TreePathScanner<Void, Void> {
        final CompilationUnitTree unit;
        final Trees trees;
        final SourcePositions positions;
        final String path;
        private final String text;

        Names(Path folder, CompilationUnitTree unit, Trees trees) {
            this.unit = unit;
            this.trees = trees;
            this.positions = trees.getSourcePositions();
            this.path = folder.toAbsolutePath()
                    .normalize()
                    .relativize(Path.of(unit.getSourceFile().toUri()).normalize())
                    .toString();
            try {
                this.text = unit.getSourceFile().getCharContent(true).toString();
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        }

        /** Where a name begins at the latest before an offset. */
        CompilerUses.Place before(long end, String name) {
            long start = end - name.length();
            return start >= 0 && text.startsWith(name, (int) start) ? place(start) : null;
        }

        /** Where a name stands as a whole behind an offset. */
        CompilerUses.Place behind(long from, String name) {
            int at = (int) from;
            while (at >= 0 && (at = text.indexOf(name, at)) >= 0) {
                boolean whole = (at == 0 || !Character.isJavaIdentifierPart(text.charAt(at - 1)))
                        && (at + name.length() >= text.length()
                                || !Character.isJavaIdentifierPart(text.charAt(at + name.length())));
                if (whole) {
                    return place(at);
                }
                at++;
            }
            return null;
        }

        private CompilerUses.Place place(long offset) {
            int line = (int) unit.getLineMap().getLineNumber(offset);
            return new CompilerUses.Place(
                    path, line, (int) (offset - unit.getLineMap().getStartPosition(line)) + 1);
        }
    }

    private static final class Declared extends Names {
        private final Map<Element, CompilerUses.Place> into;
        private final Map<TypeElement, CompilerUses.Place> types;

        Declared(
                Path folder,
                CompilationUnitTree unit,
                Trees trees,
                Map<Element, CompilerUses.Place> into,
                Map<TypeElement, CompilerUses.Place> types) {
            super(folder, unit, trees);
            this.into = into;
            this.types = types;
        }

        @Override
        public Void visitClass(com.sun.source.tree.ClassTree tree, Void none) {
            String name = tree.getSimpleName().toString();
            if (!name.isEmpty() && trees.getElement(getCurrentPath()) instanceof TypeElement type) {
                long modifiers = positions.getEndPosition(unit, tree.getModifiers());
                CompilerUses.Place place = behind(Math.max(modifiers, positions.getStartPosition(unit, tree)), name);
                if (place != null) {
                    types.put(type, place);
                }
            }
            return super.visitClass(tree, null);
        }

        @Override
        public Void visitMethod(com.sun.source.tree.MethodTree tree, Void none) {
            Element element = trees.getElement(getCurrentPath());
            if (element != null && element.getKind() == ElementKind.METHOD) {
                long from = tree.getReturnType() == null
                        ? positions.getStartPosition(unit, tree)
                        : positions.getEndPosition(unit, tree.getReturnType());
                add(element, behind(from, tree.getName().toString()));
            }
            return super.visitMethod(tree, null);
        }

        @Override
        public Void visitVariable(com.sun.source.tree.VariableTree tree, Void none) {
            Element element = trees.getElement(getCurrentPath());
            if (element != null && element.getKind() == ElementKind.FIELD) {
                add(
                        element,
                        behind(
                                positions.getEndPosition(unit, tree.getType()),
                                tree.getName().toString()));
            } else if (element != null && element.getKind() == ElementKind.ENUM_CONSTANT) {
                add(
                        element,
                        behind(
                                ((com.sun.tools.javac.tree.JCTree.JCVariableDecl) tree).pos,
                                tree.getName().toString()));
            }
            return super.visitVariable(tree, null);
        }

        private void add(Element element, CompilerUses.Place place) {
            if (place != null) {
                into.put(element, place);
            }
        }
    }

    private static final class Used extends Names {
        private final Elements elements;
        private final Map<Element, CompilerUses.Place> declared;
        private final List<CompilerUses.Use> uses;
        private final Set<CompilerUses.Place> elsewhere;

        Used(
                Path folder,
                CompilationUnitTree unit,
                Trees trees,
                Elements elements,
                Map<Element, CompilerUses.Place> declared,
                List<CompilerUses.Use> uses,
                Set<CompilerUses.Place> elsewhere) {
            super(folder, unit, trees);
            this.elements = elements;
            this.declared = declared;
            this.uses = uses;
            this.elsewhere = elsewhere;
        }

        @Override
        public Void visitIdentifier(IdentifierTree tree, Void none) {
            long start = positions.getStartPosition(unit, tree);
            String name = tree.getName().toString();
            add(before(start + name.length(), name), name);
            return super.visitIdentifier(tree, null);
        }

        @Override
        public Void visitMemberSelect(MemberSelectTree tree, Void none) {
            add(
                    before(
                            positions.getEndPosition(unit, tree),
                            tree.getIdentifier().toString()),
                    tree.getIdentifier().toString());
            return super.visitMemberSelect(tree, null);
        }

        @Override
        public Void visitMemberReference(MemberReferenceTree tree, Void none) {
            add(
                    before(positions.getEndPosition(unit, tree), tree.getName().toString()),
                    tree.getName().toString());
            return super.visitMemberReference(tree, null);
        }

        @Override
        public Void visitVariable(com.sun.source.tree.VariableTree tree, Void none) {
            Element element = trees.getElement(getCurrentPath());
            if (element != null && element.getKind() != ElementKind.FIELD && tree.getType() != null) {
                CompilerUses.Place place = behind(
                        positions.getEndPosition(unit, tree.getType()),
                        tree.getName().toString());
                if (place != null) {
                    elsewhere.add(place);
                }
            }
            return super.visitVariable(tree, null);
        }

        private void add(CompilerUses.Place place, String name) {
            Element element = trees.getElement(getCurrentPath());
            if (place == null || element == null || !isKnown(element)) {
                return;
            }
            CompilerUses.Place declaration = declared.getOrDefault(element, component(element));
            if (declaration == null) {
                elsewhere.add(place);
            } else {
                String kind =
                        declared.containsKey(element) && element.getKind() == ElementKind.METHOD ? "method" : "field";
                uses.add(new CompilerUses.Use(place, name, declaration, kind));
            }
        }

        /**
         * The component of a record that a method which nobody wrote reads, or that a compact constructor has as a
         * parameter which nobody wrote.
         */
        private CompilerUses.Place component(Element element) {
            Element owner = element.getKind() == ElementKind.PARAMETER
                            && element.getEnclosingElement() instanceof ExecutableElement constructor
                            && elements.isCompactConstructor(constructor)
                    ? constructor
                    : element;
            boolean ofRecord = (owner != element || element.getKind() == ElementKind.METHOD)
                    && owner.getEnclosingElement().getKind() == ElementKind.RECORD;
            return !ofRecord
                    ? null
                    : owner.getEnclosingElement().getEnclosedElements().stream()
                            .filter(other -> other.getKind() == ElementKind.FIELD
                                    && other.getSimpleName().equals(element.getSimpleName()))
                            .map(declared::get)
                            .filter(Objects::nonNull)
                            .findFirst()
                            .orElse(null);
        }

        private static boolean isKnown(Element element) {
            return element.asType() != null && !element.asType().getKind().equals(javax.lang.model.type.TypeKind.ERROR);
        }
    }
}
