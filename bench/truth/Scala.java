import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import scala.jdk.javaapi.CollectionConverters;
import scala.meta.Ctor;
import scala.meta.Decl;
import scala.meta.Defn;
import scala.meta.Dialect;
import scala.meta.Enumerator;
import scala.meta.Mod;
import scala.meta.Pat;
import scala.meta.Pkg;
import scala.meta.Source;
import scala.meta.Template;
import scala.meta.Term;
import scala.meta.Tree;
import scala.meta.inputs.Input;
import scala.meta.parsers.Parse;
import scala.meta.tokens.Token;

/**
 * Writes what Scalameta says of Scala files, as DumpedTruth reads it:
 * {@code java -cp scalameta_2.13.jar:… Scala.java 2|3 FOLDER… >DUMP}, with the artifact scalameta_2.13 (4.12.7) and all that it
 * depends on, which the benchmark takes from the variable SCALAMETA.
 */
class Scala {
    private final StringBuilder out = new StringBuilder();
    private String text;
    private int[] bytes; // offsets, by those in characters

    public static void main(String[] arguments) throws IOException {
        Dialect dialect = arguments[0].equals("3")
                ? scala.meta.dialects.package$.MODULE$.Scala3()
                : scala.meta.dialects.package$.MODULE$.Scala213();
        for (String folder : List.of(arguments).subList(1, arguments.length)) {
            List<Path> paths;
            try (var all = Files.walk(Path.of(folder))) {
                paths = all.filter(path -> path.toString().endsWith(".scala")).sorted().toList();
            }
            for (Path path : paths) {
                try {
                    String text = Files.readString(path);
                    if (text.indexOf('\r') < 0 && !text.startsWith("\uFEFF")) {
                        var parsed = Parse.parseSource().apply(new Input.String(text), dialect);
                        if (parsed.toOption().isDefined()) {
                            System.out.print(new Scala().of(path, text, (Source) parsed.get()));
                        }
                    }
                } catch (MalformedInputException e) {
                    // no UTF-8
                }
            }
        }
        System.out.flush();
    }

    private String of(Path path, String of, Source source) {
        text = of;
        bytes = new int[text.length() + 1];
        for (int i = 0, at = 0; i < text.length(); i++) {
            bytes[i] = at;
            char c = text.charAt(i);
            at += c < 0x80 ? 1 : c < 0x800 ? 2 : Character.isSurrogate(c) ? 2 : 3;
            bytes[i + 1] = at;
        }
        out.append("F\t").append(path).append('\n');
        walk(source, List.of(), false);
        regions(source);
        return out.toString();
    }

    private void declare(String name, Tree at, Tree whole, List<String> around) {
        if (name.isEmpty() || name.equals("_")) {
            return;
        }
        out.append("D\t").append(name).append('\t').append(at.pos().startLine() + 1);
        out.append('\t').append(whole == null ? "-" : whole.pos().endLine() + 1);
        out.append('\t').append(around == null ? "-" : String.join(".", around)).append('\n');
    }

    private static List<String> with(List<String> around, String name) {
        if (around == null || name.isEmpty()) {
            return around;
        }
        List<String> more = new ArrayList<>(around);
        more.add(name);
        return more;
    }

    private static List<Tree> children(Tree tree) {
        return CollectionConverters.asJava(tree.children()).stream().map(child -> (Tree) child).toList();
    }

    private static boolean has(Object mods, Class<?> mod) {
        return CollectionConverters.asJava((scala.collection.immutable.List<?>) mods).stream().anyMatch(mod::isInstance);
    }

    /** The names that patterns bind; those of values stand alone or in brackets. */
    private void patterns(Tree pattern, Tree whole, List<String> around) {
        if (pattern instanceof Pat.Var bound) {
            declare(bound.name().value(), bound.name(), whole, around);
        } else {
            children(pattern).forEach(child -> patterns(child, whole, around));
        }
    }

    private static String firstName(Tree pattern) {
        if (pattern instanceof Pat.Var bound) {
            return bound.name().value();
        }
        return "";
    }

    private void parameters(Ctor.Primary constructor, boolean isCase, List<String> around) {
        boolean first = true;
        for (Object clause : CollectionConverters.asJava(constructor.paramClauses())) {
            for (Object some : CollectionConverters.asJava(((Term.ParamClause) clause).values())) {
                Term.Param parameter = (Term.Param) some;
                boolean isField = has(parameter.mods(), Mod.ValParam.class) || has(parameter.mods(), Mod.VarParam.class);
                if (isField || isCase && first) {
                    declare(parameter.name().value(), parameter.name(), null, around);
                }
            }
            first = false;
        }
    }

    private void values(scala.collection.immutable.List<?> patterns, Tree whole, List<String> around, boolean inCode) {
        if (!inCode) {
            CollectionConverters.asJava(patterns).forEach(pattern -> patterns((Tree) pattern, whole, around));
        }
    }

    private void walk(Tree tree, List<String> around, boolean inCode) {
        List<String> inside = around;
        boolean code = inCode;
        switch (tree) {
            case Pkg of -> {
                declare(of.ref().toString(), of.ref(), null, around);
                inside = with(around, of.ref().toString());
            }
            case Pkg.Object of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
            }
            case Defn.Class of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
                parameters(of.ctor(), has(of.mods(), Mod.Case.class), inside);
            }
            case Defn.Trait of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
                parameters(of.ctor(), false, inside);
            }
            case Defn.Object of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
            }
            case Defn.Enum of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
                parameters(of.ctor(), false, inside);
            }
            case Defn.EnumCase of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
                parameters(of.ctor(), true, inside);
            }
            case Defn.RepeatedEnumCase of ->
                CollectionConverters.asJava(of.cases()).forEach(name -> declare(name.value(), name, null, around));
            case Defn.Given of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
            }
            case Defn.GivenAlias of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
            }
            case Decl.Given of -> declare(of.name().value(), of.name(), of, around);
            case Defn.Def of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
            }
            case Defn.Macro of -> declare(of.name().value(), of.name(), of, around);
            case Decl.Def of -> declare(of.name().value(), of.name(), of, around);
            case Ctor.Secondary of -> {
                declare("this", of.name(), of, around);
                inside = with(around, "this");
            }
            case Defn.Type of -> {
                declare(of.name().value(), of.name(), of, around);
                inside = with(around, of.name().value());
            }
            case Decl.Type of -> declare(of.name().value(), of.name(), of, around);
            case Defn.Val of -> {
                values(of.pats(), of, around, inCode);
                inside = inCode ? around : with(around, firstName(of.pats().head()));
            }
            case Defn.Var of -> {
                values(of.pats(), of, around, inCode);
                inside = inCode ? around : with(around, firstName(of.pats().head()));
            }
            case Decl.Val of -> values(of.pats(), of, around, inCode);
            case Decl.Var of -> values(of.pats(), of, around, inCode);
            case Template of -> code = false;
            case Term of -> code = true;
            case Enumerator of -> code = true;
            default -> {}
        }
        for (Tree child : children(tree)) {
            walk(child, inside, code);
        }
    }

    private void regions(Source source) {
        List<Integer> spliced = new ArrayList<>(); // where what is spliced into a string begins
        for (Object some : CollectionConverters.asJava(source.tokens().toList())) {
            Token token = (Token) some;
            String kind = token.getClass().getName();
            if (token instanceof Token.Comment) {
                region("comment", token.start(), token.end());
            } else if (kind.endsWith("Interpolation$SpliceStart")) {
                spliced.add(token.start());
            } else if (kind.endsWith("Interpolation$SpliceEnd")) {
                int start = spliced.removeLast();
                if (text.charAt(start + 1) == '{') {
                    region("string", start, start + 2);
                    region("string", token.start() - 1, token.start());
                } else {
                    region("string", start, token.start());
                }
            } else if (kind.matches(".*(Interpolation|Constant\\$String|Constant\\$Char).*")) {
                region("string", token.start(), token.end());
            }
        }
    }

    private void region(String kind, int from, int to) {
        out.append("R\t").append(kind).append('\t').append(bytes[from]).append('\t').append(bytes[to]).append('\n');
    }
}
