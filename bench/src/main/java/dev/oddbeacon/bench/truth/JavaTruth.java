package dev.oddbeacon.bench.truth;

import com.sun.source.tree.ClassTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.MethodTree;
import com.sun.source.tree.ModuleTree;
import com.sun.source.tree.PackageTree;
import com.sun.source.tree.Tree;
import com.sun.source.tree.VariableTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreePathScanner;
import com.sun.source.util.Trees;
import com.sun.tools.javac.parser.Scanner;
import com.sun.tools.javac.parser.ScannerFactory;
import com.sun.tools.javac.parser.Tokens;
import com.sun.tools.javac.tree.JCTree;
import com.sun.tools.javac.util.Context;
import com.sun.tools.javac.util.Log;
import dev.oddbeacon.core.source.Region;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import javax.tools.Diagnostic;
import javax.tools.DiagnosticCollector;
import javax.tools.JavaCompiler;
import javax.tools.JavaFileObject;
import javax.tools.SimpleJavaFileObject;
import javax.tools.ToolProvider;

/** Asks the JDK's compiler: its syntax tree for declarations, its scanner for comments and strings. */
final class JavaTruth {
    private final JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();

    /** @return empty if the compiler does not take the file */
    Optional<Truth> of(String path, String text) throws IOException {
        DiagnosticCollector<JavaFileObject> problems = new DiagnosticCollector<>();
        JavaFileObject source =
                new SimpleJavaFileObject(URI.create("string:///File.java"), JavaFileObject.Kind.SOURCE) {
                    @Override
                    public CharSequence getCharContent(boolean ignoreEncodingErrors) {
                        return text;
                    }
                };
        JavacTask task = (JavacTask)
                compiler.getTask(Writer.nullWriter(), null, problems, List.of("-proc:none"), null, List.of(source));
        List<Truth.Declared> declared = new ArrayList<>();
        CompilationUnitTree unit = task.parse().iterator().next();
        if (problems.getDiagnostics().stream().anyMatch(problem -> problem.getKind() == Diagnostic.Kind.ERROR)) {
            return Optional.empty();
        }
        new Declarations(text, unit, Trees.instance(task).getSourcePositions(), declared).scan(unit, null);
        return Optional.of(new Truth(path, declared, regions(text), new BitSet()));
    }

    private static final class Declarations extends TreePathScanner<Void, Void> {
        private final String text;
        private final CompilationUnitTree unit;
        private final SourcePositions positions;
        private final List<Truth.Declared> declared;

        Declarations(String text, CompilationUnitTree unit, SourcePositions positions, List<Truth.Declared> declared) {
            this.text = text;
            this.unit = unit;
            this.positions = positions;
            this.declared = declared;
        }

        @Override
        public Void visitPackage(PackageTree tree, Void none) {
            return null;
        }

        @Override
        public Void visitModule(ModuleTree tree, Void none) {
            return null;
        }

        @Override
        public Void visitClass(ClassTree tree, Void none) {
            String name = tree.getSimpleName().toString();
            if (!name.isEmpty()) {
                add(name, end(tree.getModifiers(), tree));
            }
            return super.visitClass(tree, null);
        }

        @Override
        public Void visitMethod(MethodTree tree, Void none) {
            boolean isConstructor = tree.getName().contentEquals("<init>");
            String name = isConstructor
                    ? ((ClassTree) getCurrentPath().getParentPath().getLeaf())
                            .getSimpleName()
                            .toString()
                    : tree.getName().toString();
            if (positions.getEndPosition(unit, tree) >= 0) { // not the constructor that the compiler adds
                add(name, ((JCTree.JCMethodDecl) tree).pos);
            }
            return super.visitMethod(tree, null);
        }

        @Override
        public Void visitVariable(VariableTree tree, Void none) {
            Tree parent = getCurrentPath().getParentPath().getLeaf();
            if (parent instanceof ClassTree && positions.getStartPosition(unit, tree) >= 0) {
                add(tree.getName().toString(), ((JCTree.JCVariableDecl) tree).pos);
            }
            return super.visitVariable(tree, null);
        }

        private int end(Tree modifiers, Tree tree) {
            long end = positions.getEndPosition(unit, modifiers);
            return (int) (end >= 0 ? end : positions.getStartPosition(unit, tree));
        }

        /** The name is the first such word behind what stands before it. */
        private void add(String name, int from) {
            int at = text.indexOf(name, from);
            while (at > 0
                    && (Character.isJavaIdentifierPart(text.charAt(at - 1))
                            || at + name.length() < text.length()
                                    && Character.isJavaIdentifierPart(text.charAt(at + name.length())))) {
                at = text.indexOf(name, at + 1);
            }
            if (at >= 0) {
                declared.add(new Truth.Declared(
                        name,
                        (int) text.substring(0, at)
                                        .chars()
                                        .filter(c -> c == '\n')
                                        .count()
                                + 1));
            }
        }
    }

    /** Between two tokens stand only blanks and comments. */
    private static List<Truth.Span> regions(String text) {
        int[] bytes = new int[text.length() + 1];
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            bytes[i + 1] = bytes[i] + (c < 0x80 ? 1 : c < 0x800 ? 2 : Character.isSurrogate(c) ? 2 : 3);
        }
        Context context = new Context();
        Log.preRegister(context, new PrintWriter(Writer.nullWriter()));
        Scanner scanner = ScannerFactory.instance(context).newScanner(text, true);
        List<Truth.Span> spans = new ArrayList<>();
        int before = 0;
        do {
            scanner.nextToken();
            Tokens.Token token = scanner.token();
            comments(text, before, Math.min(token.pos, text.length()), bytes, spans);
            if (token.kind == Tokens.TokenKind.STRINGLITERAL || token.kind == Tokens.TokenKind.CHARLITERAL) {
                spans.add(new Truth.Span(Region.STRING, bytes[token.pos], bytes[token.endPos]));
            }
            before = token.endPos;
        } while (scanner.token().kind != Tokens.TokenKind.EOF);
        return spans;
    }

    private static void comments(String text, int from, int to, int[] bytes, List<Truth.Span> spans) {
        int at = from;
        while (at < to) {
            if (text.startsWith("//", at)) {
                int end = text.indexOf('\n', at);
                end = end < 0 || end > to ? to : end;
                spans.add(new Truth.Span(Region.COMMENT, bytes[at], bytes[end]));
                at = end;
            } else if (text.startsWith("/*", at)) {
                int end = text.indexOf("*/", at + 2) + 2;
                spans.add(new Truth.Span(Region.COMMENT, bytes[at], bytes[end]));
                at = end;
            } else {
                at++;
            }
        }
    }

    static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
