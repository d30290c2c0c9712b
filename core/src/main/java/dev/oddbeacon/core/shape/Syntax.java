package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;

/**
 * What operators a language has, and how tightly they bind. The levels are those that languages with braces share; a
 * level is the tighter the smaller it is.
 */
final class Syntax {
    /** Only a name, what it is a member of, and what types it takes. */
    static final int NAME = -2;
    /** What stands behind an operand and belongs to it: members, calls, indexes. */
    static final int POSTFIX = 0;

    static final int UNARY = 5;
    static final int MULTIPLY = 20;
    static final int ADD = 30;
    static final int SHIFT = 40;
    static final int COMPARE = 50;
    static final int NOT = 95;
    static final int TERNARY = 130;
    static final int LAMBDA = 140;
    static final int ASSIGN = 1_500;
    /** Every operator but those that assign. */
    static final int ANY = 1_000;
    /** Every operator. */
    static final int ALL = 2_000;
    /** No operator between operands. */
    static final int NONE = -1;

    private static final Map<String, Integer> SIGNS = Map.ofEntries(
            Map.entry("**", 10),
            Map.entry("*", MULTIPLY),
            Map.entry("/", MULTIPLY),
            Map.entry("%", MULTIPLY),
            Map.entry("//", MULTIPLY),
            Map.entry("+", ADD),
            Map.entry("-", ADD),
            Map.entry("~", ADD),
            Map.entry("..", SHIFT),
            Map.entry("...", SHIFT),
            Map.entry("<", COMPARE),
            Map.entry(">", COMPARE),
            Map.entry("<=", COMPARE),
            Map.entry(">=", COMPARE),
            Map.entry("<=>", COMPARE),
            Map.entry("==", 60),
            Map.entry("!=", 60),
            Map.entry("===", 60),
            Map.entry("!==", 60),
            Map.entry("=~", 60),
            Map.entry("!~", 60),
            Map.entry("&", 70),
            Map.entry("^", 80),
            Map.entry("|", 90),
            Map.entry("&&", 100),
            Map.entry("||", 110),
            Map.entry("??", 120),
            Map.entry("?:", 120),
            Map.entry("?", TERNARY),
            Map.entry("->", LAMBDA),
            Map.entry("=>", LAMBDA));
    /** Where combining bits binds tighter than comparing. */
    private static final Map<String, Integer> TIGHT_BITS = Map.of("&", 42, "^", 44, "|", 46);

    private static final Set<String> WITH_TIGHT_BITS =
            Set.of("python", "rust", "go", "kotlin", "swift", "ruby", "scala", "lua");
    private static final Map<String, Integer> WORDS = Map.ofEntries(
            Map.entry("as", 10),
            Map.entry("div", MULTIPLY),
            Map.entry("mod", MULTIPLY),
            Map.entry("instanceof", COMPARE),
            Map.entry("in", COMPARE),
            Map.entry("is", COMPARE),
            Map.entry("like", COMPARE),
            Map.entry("between", COMPARE),
            Map.entry("and", 100),
            Map.entry("or", 110),
            Map.entry("xor", 110));
    private static final Set<String> PREFIX_WORDS = Set.of(
            "await", "typeof", "delete", "sizeof", "alignof", "not", "ref", "out", "mut", "move", "try", "async");
    /** Reserved, and yet no operands. */
    private static final Set<String> APART = Set.of(
            "else",
            "then",
            "do",
            "end",
            "finally",
            "throws",
            "rethrows",
            "extends",
            "implements",
            "where",
            "elif",
            "elsif",
            "rescue",
            "ensure",
            "unless",
            "until",
            "from",
            "case",
            "when",
            "begin",
            "defer",
            "go",
            "return",
            "yield",
            "raise",
            "throw",
            "assert",
            "import",
            "break",
            "continue",
            "pass",
            "del",
            "global",
            "goto");
    /** What stands between these words and a brace is asked or gone through, and the brace is no part of it. */
    private static final Set<String> HEADS = Set.of(
            "if",
            "elif",
            "else",
            "while",
            "for",
            "foreach",
            "switch",
            "match",
            "when",
            "guard",
            "catch",
            "with",
            "using",
            "lock",
            "synchronized",
            "until",
            "unless",
            "select",
            "func",
            "fn",
            "fun",
            "def",
            "impl",
            "trait",
            "class",
            "struct",
            "interface",
            "enum");

    private static final Set<String> WITH_CASTS = Set.of("java", "c", "cpp", "csharp", "php");
    private static final Set<String> WITH_ARROW_MEMBERS = Set.of("c", "cpp", "php", "perl");
    private static final Set<String> WITH_BRACES_BEHIND =
            Set.of("go", "rust", "swift", "kotlin", "scala", "ruby", "cpp");
    private static final Set<String> WITH_MARKS_BEHIND =
            Set.of("rust", "swift", "kotlin", "typescript", "vue", "csharp");

    private final Map<Integer, Integer> levels = new HashMap<>();
    private final String nameSigns;
    private final boolean doubleReferences;
    final boolean casts;
    final boolean onlyCasts; // a call has no parentheses around what is called
    final boolean arrowMembers;
    final boolean bracesBehind;
    final boolean marksBehind;
    final boolean colonMembers;
    final boolean isRust;
    final boolean isPython;
    /** Whether the end of a line ends a statement. */
    final boolean linesEnd;

    Syntax(Language language) {
        String name = language.name();
        SIGNS.forEach((sign, level) -> levels.put(code(sign), level));
        if (WITH_TIGHT_BITS.contains(name)) {
            TIGHT_BITS.forEach((sign, level) -> levels.put(code(sign), level));
        }
        nameSigns = switch (name) {
            case "perl" -> "$@%";
            case "php" -> "$@\\";
            case "ruby" -> "$@:";
            case "javascript", "typescript", "vue" -> "@#";
            default -> "$@";
        };
        doubleReferences = name.equals("rust") || name.equals("cpp");
        onlyCasts = name.equals("java") || name.equals("csharp");
        casts = WITH_CASTS.contains(name);
        arrowMembers = WITH_ARROW_MEMBERS.contains(name);
        bracesBehind = WITH_BRACES_BEHIND.contains(name);
        marksBehind = WITH_MARKS_BEHIND.contains(name);
        if (name.equals("php") || name.equals("perl")) {
            levels.put(code("."), ADD);
        }
        colonMembers = name.equals("lua");
        isRust = name.equals("rust");
        isPython = name.equals("python");
        linesEnd = switch (language.structure()) {
            case INDENT, RUBY, SHELL, SCALA, LINES, INDENTED_KEYS, HEADINGS -> true;
            case SCRIPT -> false;
            default -> language.has("lines");
        };
    }

    /** How tightly a sign binds its two operands; {@link #NONE} if it does not stand between operands. */
    int levelOfSign(int sign) {
        return levels.getOrDefault(sign, NONE);
    }

    /** The same of a word, which is reserved. */
    int levelOfWord(String word) {
        if (isPython && (word.equals("if") || word.equals("else"))) {
            return TERNARY;
        }
        return WORDS.getOrDefault(word, NONE);
    }

    static boolean isPrefixWord(String word) {
        return PREFIX_WORDS.contains(word);
    }

    static boolean isHead(String word) {
        return HEADS.contains(word);
    }

    /** Whether a word begins a choice, which has a value in some languages: {@code switch (x) {…}}. */
    static boolean isChoice(String word) {
        return word.equals("switch") || word.equals("match") || word.equals("when");
    }

    /** Whether a word that is no name may be an operand: {@code this}, {@code int}. */
    static boolean isOperand(String text, Word word) {
        return switch (word.role()) {
            case VALUE -> true;
            case RESERVED -> !APART.contains(text) && !WORDS.containsKey(text) && !PREFIX_WORDS.contains(text);
            case MODIFIER, DECLARES, EXTENDS, STATEMENT, OPENS, OPENS_FIRST, CLOSES -> false;
        };
    }

    /** Whether a sign may stand before its only operand. */
    boolean isPrefix(int sign) {
        return switch (sign) {
            case '-', '+', '!', '~', '*', '&', '^' -> true;
            default ->
                sign == code("++")
                        || sign == code("--")
                        || sign == code("...")
                        || sign == code("..")
                        || sign == code("**")
                        || sign == code("&&") && doubleReferences;
        };
    }

    /** Whether a member follows a sign. */
    boolean isMember(int sign) {
        return sign == '.' && levelOfSign(sign) == NONE
                || sign == code("?.")
                || sign == code("::")
                || sign == code("->") && arrowMembers
                || sign == ':' && colonMembers;
    }

    /** Whether a sign stands behind its only operand. */
    static boolean isBehind(int sign) {
        return sign == code("++") || sign == code("--");
    }

    /** Whether a sign is the beginning of a name. */
    boolean isOfName(int sign) {
        return sign > 0 && sign < 0x80 && nameSigns.indexOf(sign) >= 0;
    }

    static boolean assigns(int sign) {
        return sign == '='
                || sign == code(":=")
                || sign > 0xFF && sign >>> 8 * (length(sign) - 1) == '=' && !compares(sign);
    }

    private static boolean compares(int sign) {
        return sign == code("==")
                || sign == code("===")
                || sign == code("!=")
                || sign == code("!==")
                || sign == code("<=")
                || sign == code(">=");
    }

    private static int length(int sign) {
        return sign > 0xFFFF ? 3 : sign > 0xFF ? 2 : 1;
    }

    /** A sign as {@link Tokens#sign} tells it. */
    static int code(String sign) {
        int code = 0;
        for (int i = sign.length() - 1; i >= 0; i--) {
            code = code << 8 | sign.charAt(i);
        }
        return code;
    }
}
