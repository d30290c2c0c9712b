import com.intellij.openapi.util.Disposer;
import com.intellij.psi.PsiComment;
import com.intellij.psi.PsiElement;
import com.intellij.psi.PsiErrorElement;
import com.intellij.psi.PsiFileFactory;
import com.intellij.psi.util.PsiTreeUtil;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jetbrains.kotlin.cli.common.messages.MessageCollector;
import org.jetbrains.kotlin.cli.jvm.compiler.EnvironmentConfigFiles;
import org.jetbrains.kotlin.cli.jvm.compiler.KotlinCoreEnvironment;
import org.jetbrains.kotlin.config.CommonConfigurationKeys;
import org.jetbrains.kotlin.config.CompilerConfiguration;
import org.jetbrains.kotlin.idea.KotlinLanguage;
import org.jetbrains.kotlin.psi.*;

/**
 * Writes what the parser of Kotlin's compiler says of Kotlin files, as DumpedTruth reads it:
 * {@code java -cp kotlin-compiler.jar:… Kotlin.java FOLDER… >DUMP}, with the artifact kotlin-compiler (2.0.21) and all
 * that it depends on, which the benchmark takes from the variable KOTLIN_COMPILER.
 */
class Kotlin {
    private final StringBuilder out = new StringBuilder();
    private String text;
    private int[] bytes; // offsets, by those in characters

    public static void main(String[] folders) throws IOException {
        CompilerConfiguration configuration = new CompilerConfiguration();
        configuration.put(CommonConfigurationKeys.MESSAGE_COLLECTOR_KEY, MessageCollector.Companion.getNONE());
        KotlinCoreEnvironment environment = KotlinCoreEnvironment.createForProduction(
                Disposer.newDisposable(), configuration, EnvironmentConfigFiles.JVM_CONFIG_FILES);
        PsiFileFactory factory = PsiFileFactory.getInstance(environment.getProject());
        for (String folder : folders) {
            List<Path> paths;
            try (var all = Files.walk(Path.of(folder))) {
                paths = all.filter(path -> path.toString().endsWith(".kt")).sorted().toList();
            }
            for (Path path : paths) {
                try {
                    String text = Files.readString(path);
                    if (text.indexOf('\r') < 0 && !text.startsWith("\uFEFF")) {
                        KtFile file = (KtFile) factory.createFileFromText("a.kt", KotlinLanguage.INSTANCE, text);
                        if (!PsiTreeUtil.hasErrorElements(file)) {
                            System.out.print(new Kotlin().of(path, text, file));
                        }
                    }
                } catch (MalformedInputException e) {
                    // no UTF-8
                }
            }
        }
        System.out.flush();
        System.exit(0);
    }

    private String of(Path path, String of, KtFile file) {
        text = of;
        bytes = new int[text.length() + 1];
        for (int i = 0, at = 0; i < text.length(); i++) {
            bytes[i] = at;
            char c = text.charAt(i);
            at += c < 0x80 ? 1 : c < 0x800 ? 2 : Character.isSurrogate(c) ? 2 : 3;
            bytes[i + 1] = at;
        }
        out.append("F\t").append(path).append('\n');
        List<String> around = new ArrayList<>();
        if (!file.getPackageFqName().isRoot()) {
            KtPackageDirective directive = file.getPackageDirective();
            String name = directive.getFqName().asString();
            declare(name, directive.getPackageNameExpression(), null, List.of());
            around.add(name);
        }
        for (KtDeclaration declaration : file.getDeclarations()) {
            walk(declaration, around, false);
        }
        regions(file);
        return out.toString();
    }

    private int line(int offset) {
        return (int) text.substring(0, offset).chars().filter(c -> c == '\n').count() + 1;
    }

    private void declare(String name, PsiElement at, PsiElement whole, List<String> around) {
        if (name == null || name.equals("_")) {
            return;
        }
        out.append("D\t").append(name).append('\t').append(line(at.getTextRange().getStartOffset()));
        out.append('\t').append(whole == null ? "-" : line(whole.getTextRange().getEndOffset()));
        out.append('\t').append(around == null ? "-" : String.join(".", around)).append('\n');
    }

    private static List<String> with(List<String> around, String name) {
        if (around == null || name == null) {
            return null;
        }
        List<String> more = new ArrayList<>(around);
        more.add(name);
        return more;
    }

    /** What names a receiver, without its arguments; null if it is no plain type. */
    private static List<String> receiver(KtTypeReference reference, List<String> around) {
        if (reference == null) {
            return around;
        }
        KtTypeElement type = reference.getTypeElement();
        while (type instanceof KtNullableType nullable) {
            type = nullable.getInnerType();
        }
        if (!(type instanceof KtUserType user)) {
            return null;
        }
        String name = user.getReferencedName();
        for (KtUserType outer = user.getQualifier(); outer != null; outer = outer.getQualifier()) {
            name = outer.getReferencedName() + "." + name;
        }
        return with(around, name);
    }

    private void walk(PsiElement element, List<String> around, boolean inCode) {
        List<String> inside = around;
        boolean code = inCode;
        switch (element) {
            case KtEnumEntry entry -> {
                declare(entry.getName(), entry.getNameIdentifier(), entry, around);
                inside = with(around, entry.getName());
            }
            case KtObjectDeclaration object when object.getNameIdentifier() == null -> code = false;
            case KtClassOrObject type -> {
                declare(type.getName(), type.getNameIdentifier(), type, around);
                inside = with(around, type.getName());
                code = false;
            }
            case KtNamedFunction function when function.getNameIdentifier() != null -> {
                List<String> of = receiver(function.getReceiverTypeReference(), around);
                declare(function.getName(), function.getNameIdentifier(), function, of);
                inside = with(of, function.getName());
                code = true;
            }
            case KtNamedFunction function -> code = true;
            case KtSecondaryConstructor constructor -> {
                declare("constructor", constructor.getConstructorKeyword(), constructor, around);
                inside = with(around, "constructor");
                code = true;
            }
            case KtProperty property -> {
                if (!inCode) {
                    List<String> of = receiver(property.getReceiverTypeReference(), around);
                    declare(property.getName(), property.getNameIdentifier(), property, of);
                    inside = with(of, property.getName());
                }
                code = true;
            }
            case KtDestructuringDeclaration several -> code = true;
            case KtTypeAlias alias -> declare(alias.getName(), alias.getNameIdentifier(), alias, around);
            case KtParameter parameter when parameter.hasValOrVar() ->
                declare(parameter.getName(), parameter.getNameIdentifier(), parameter, around);
            case KtBlockExpression block -> code = true;
            case KtLambdaExpression lambda -> code = true;
            default -> {}
        }
        for (PsiElement child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
            walk(child, inside, code);
        }
    }

    private void regions(PsiElement element) {
        switch (element) {
            case PsiComment comment -> region("comment", comment);
            case KtStringTemplateExpression string -> {
                region("string", string.getFirstChild());
                for (KtStringTemplateEntry entry : string.getEntries()) {
                    if (entry instanceof KtBlockStringTemplateEntry block) {
                        region("string", block.getFirstChild());
                        regions(block.getExpression());
                        region("string", block.getLastChild());
                    } else {
                        region("string", entry);
                    }
                }
                region("string", string.getLastChild());
            }
            case KtConstantExpression constant when constant.getText().startsWith("'") -> region("string", constant);
            case null -> {}
            default -> {
                for (PsiElement child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
                    regions(child);
                }
            }
        }
    }

    private void region(String kind, PsiElement of) {
        int from = bytes[of.getTextRange().getStartOffset()];
        int to = bytes[of.getTextRange().getEndOffset()];
        out.append("R\t").append(kind).append('\t').append(from).append('\t').append(to).append('\n');
    }
}
