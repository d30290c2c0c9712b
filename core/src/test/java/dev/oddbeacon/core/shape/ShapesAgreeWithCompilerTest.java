package dev.oddbeacon.core.shape;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.source.tree.AssignmentTree;
import com.sun.source.tree.BinaryTree;
import com.sun.source.tree.BlockTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ConditionalExpressionTree;
import com.sun.source.tree.ExpressionStatementTree;
import com.sun.source.tree.ExpressionTree;
import com.sun.source.tree.IfTree;
import com.sun.source.tree.InstanceOfTree;
import com.sun.source.tree.LambdaExpressionTree;
import com.sun.source.tree.MemberSelectTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.tree.NewClassTree;
import com.sun.source.tree.ReturnTree;
import com.sun.source.tree.Tree;
import com.sun.source.tree.Tree.Kind;
import com.sun.source.tree.UnaryTree;
import com.sun.source.tree.WhileLoopTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreeScanner;
import com.sun.source.util.Trees;
import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.language.Language;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Shapes that mean one kind of tree begin where the compiler says that such trees begin, over our own sources. */
class ShapesAgreeWithCompilerTest {
    private static final Path SOURCES = Path.of(System.getProperty("shapes.sources", "src/main/java"));

    private static final Language JAVA = Language.named("java").orElseThrow();
    private static final List<Unit> units = new ArrayList<>();
    private static SourcePositions positions;

    /** @param takesMore whether trees of another kind are written the same */
    record Meaning(String shape, Predicate<Tree> tree, boolean takesMore) {
        Meaning(String shape, Predicate<Tree> tree) {
            this(shape, tree, false);
        }

        @Override
        public String toString() {
            return shape;
        }
    }

    static Stream<Meaning> meanings() {
        return Stream.of(
                new Meaning("?f(?_, null)", tree -> isNull(second(arguments(tree)))),
                new Meaning("?f()", tree -> isCall(tree) && arguments(tree).isEmpty(), true),
                new Meaning(
                        "?f(?a, ?b, ?c)",
                        tree -> isCall(tree) && arguments(tree).size() == 3,
                        true),
                new Meaning(
                        "?x.add(?_)",
                        tree -> tree instanceof MethodInvocationTree call
                                && call.getMethodSelect() instanceof MemberSelectTree select
                                && select.getIdentifier().contentEquals("add")
                                && call.getArguments().size() == 1),
                new Meaning(
                        "?x == null",
                        tree -> tree.getKind() == Kind.EQUAL_TO && isNull(((BinaryTree) tree).getRightOperand())),
                new Meaning("?a && ?b", tree -> tree.getKind() == Kind.CONDITIONAL_AND),
                new Meaning("?a || ?b", tree -> tree.getKind() == Kind.CONDITIONAL_OR),
                new Meaning("?a - ?b", tree -> tree.getKind() == Kind.MINUS),
                new Meaning("?a * ?b", tree -> tree.getKind() == Kind.MULTIPLY),
                new Meaning("?a >= ?b", tree -> tree.getKind() == Kind.GREATER_THAN_EQUAL),
                new Meaning("?a != ?b", tree -> tree.getKind() == Kind.NOT_EQUAL_TO),
                new Meaning("!?x", tree -> tree.getKind() == Kind.LOGICAL_COMPLEMENT),
                new Meaning("?x++", tree -> tree instanceof UnaryTree && tree.getKind() == Kind.POSTFIX_INCREMENT),
                new Meaning("?c ? ?a : ?b", ConditionalExpressionTree.class::isInstance),
                new Meaning("?x instanceof ?t", InstanceOfTree.class::isInstance),
                new Meaning(
                        "?x = ?y;",
                        tree -> tree instanceof ExpressionStatementTree statement
                                && statement.getExpression() instanceof AssignmentTree,
                        true),
                new Meaning("?x += ?y", tree -> tree.getKind() == Kind.PLUS_ASSIGNMENT),
                new Meaning("new ?t(?*_)", NewClassTree.class::isInstance, true),
                new Meaning("return ?x;", tree -> tree instanceof ReturnTree one && one.getExpression() != null),
                new Meaning("while (?c) { ?* }", WhileLoopTree.class::isInstance),
                new Meaning(
                        "if (?c) { ?* } else { ?* }",
                        tree -> tree instanceof IfTree one
                                && one.getThenStatement() instanceof BlockTree
                                && one.getElseStatement() != null
                                && one.getElseStatement() instanceof BlockTree),
                new Meaning("?p -> ?b", LambdaExpressionTree.class::isInstance, true));
    }

    private static boolean isCall(Tree tree) {
        return tree instanceof MethodInvocationTree || tree instanceof NewClassTree;
    }

    private static List<? extends ExpressionTree> arguments(Tree tree) {
        return switch (tree) {
            case MethodInvocationTree call -> call.getArguments();
            case NewClassTree created -> created.getArguments();
            default -> List.of();
        };
    }

    private static Tree second(List<? extends ExpressionTree> arguments) {
        return arguments.size() == 2 ? arguments.get(1) : null;
    }

    private static boolean isNull(Tree tree) {
        return tree != null && tree.getKind() == Kind.NULL_LITERAL;
    }

    @BeforeAll
    static void readSources() throws IOException {
        List<Path> files;
        try (Stream<Path> all = Files.walk(SOURCES)) {
            files = all.filter(file -> file.toString().endsWith(".java")
                            && !file.endsWith("module-info.java")
                            && !file.endsWith("package-info.java"))
                    .toList();
        }
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8)) {
            JavacTask task = (JavacTask)
                    compiler.getTask(null, manager, null, List.of(), null, manager.getJavaFileObjectsFromPaths(files));
            positions = Trees.instance(task).getSourcePositions();
            for (CompilationUnitTree unit : task.parse()) {
                units.add(new Unit(
                        Path.of(unit.getSourceFile().toUri()).getFileName().toString(),
                        unit.getSourceFile().getCharContent(true).toString(),
                        unit));
            }
        }
    }

    private record Unit(String file, String text, CompilationUnitTree tree) {}

    @ParameterizedTest
    @MethodSource("meanings")
    void beginWhereTheCompilerSaysThatTheTreesBegin(Meaning meaning) {
        ShapeFinder finder = new ShapeFinder(new Shape(meaning.shape, List.of()).byLanguage(false), () -> false);
        Analyser analyser = new Analyser();
        TreeSet<String> ours = new TreeSet<>();
        TreeSet<String> theirs = new TreeSet<>();
        for (Unit unit : units) {
            new TreeScanner<Boolean, Boolean>() {
                @Override
                public Boolean scan(Tree tree, Boolean nothing) {
                    if (tree != null && positions.getEndPosition(unit.tree, tree) >= 0 && meaning.tree.test(tree)) {
                        int start = (int) positions.getStartPosition(unit.tree, tree);
                        int end = (int) positions.getEndPosition(unit.tree, tree);
                        boolean isConstant = tree instanceof NewClassTree && !unit.text.startsWith("new", start);
                        boolean isOfLoop = tree instanceof ExpressionStatementTree && unit.text.charAt(end - 1) != ';';
                        if (!isConstant && !isOfLoop) {
                            theirs.add(place(unit, start));
                        }
                    }
                    return super.scan(tree, nothing);
                }
            }.scan(unit.tree, false);
            byte[] utf8 = unit.text.getBytes(StandardCharsets.UTF_8);
            finder.find(
                            utf8,
                            JAVA,
                            new Elements.RegionsFound(
                                    analyser.analyse(JAVA, utf8).found()))
                    .forEach(match ->
                            ours.add(place(unit, new String(utf8, 0, match.start(), StandardCharsets.UTF_8).length())));
        }
        assertThat(theirs).hasSizeGreaterThan(1);
        TreeSet<String> missing = new TreeSet<>(theirs);
        missing.removeAll(ours);
        TreeSet<String> tooMany = new TreeSet<>(ours);
        tooMany.removeAll(theirs);
        assertThat(missing).as("what the compiler has").isEmpty();
        if (!meaning.takesMore) {
            assertThat(tooMany).as("what the compiler has not").isEmpty();
        }
    }

    private static String place(Unit unit, int start) {
        int end = Math.min(unit.text.length(), start + 60);
        return unit.file + " " + start + ": " + unit.text.substring(start, end).replace('\n', ' ');
    }
}
