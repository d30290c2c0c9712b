package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.shape.Elements.Element.Literal;
import dev.oddbeacon.core.shape.Elements.Element.Run;
import dev.oddbeacon.core.shape.Elements.Element.Single;
import dev.oddbeacon.core.source.Analyser;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word.Role;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * A shape as code of one language: what must stand, and variables. Immutable once made.
 *
 * @param tokens of the shape; a literal is one of them
 */
record Elements(Tokens tokens, List<Element> all) {
    private static final char BEGINS = '\uE000'; // of a name that stands for a variable while its tokens are told
    private static final char ENDS = '\uE001';
    private static final String ISLAND = "<?php ";

    /** A part of a shape. */
    sealed interface Element {
        /** @param token of the shape */
        record Literal(int token) implements Element {}

        /**
         * One expression.
         *
         * @param number of the variable; negative for one that is not held against others
         * @param limit the level of the loosest operator in it
         * @param isHeld whether it is all that stands between its neighbours
         */
        record Single(int number, int limit, boolean isHeld) implements Element {}

        /** Any number of tokens. */
        record Run(int number) implements Element {}
    }

    /**
     * @param language of the file
     * @param inner the language of the code: another one if the file is markup
     * @param names of variables, by number
     */
    static Elements of(String code, Language language, Language inner, List<String> names, Analyser analyser) {
        List<Shape.Variable> variables = Shape.variables(code);
        Written written = Written.of(code, variables, inner);
        Found found = analyser.analyse(inner, written.utf8).found();
        List<Shape.Variable> inCode = new ArrayList<>();
        for (int i = 0; i < variables.size(); i++) {
            if (new RegionsFound(found).region(written.starts[i]) == Region.CODE) {
                inCode.add(variables.get(i));
            }
        }
        if (inCode.size() < variables.size()) {
            written = Written.of(code, inCode, inner);
            found = analyser.analyse(inner, written.utf8).found();
        }
        if (inner.has("islands")) {
            Arrays.fill(written.utf8, 0, ISLAND.length(), (byte) ' ');
        }
        Tokens tokens = new Tokens(language);
        tokens.read(written.utf8, new RegionsFound(found), () -> false);
        return new Elements(tokens, new Reader(tokens, new Syntax(language), inCode, names).elements());
    }

    /** Code with names where its variables stand. */
    private record Written(byte[] utf8, int[] starts) {
        static Written of(String code, List<Shape.Variable> variables, Language language) {
            StringBuilder text = new StringBuilder(language.has("islands") ? ISLAND : "");
            int[] starts = new int[variables.size()];
            int at = 0;
            int written = 0; // characters whose bytes are counted
            int bytes = 0;
            for (int i = 0; i < starts.length; i++) {
                text.append(code, at, variables.get(i).start());
                bytes += text.substring(written).getBytes(StandardCharsets.UTF_8).length;
                written = text.length();
                starts[i] = bytes;
                text.append(BEGINS).append(i).append(ENDS);
                at = variables.get(i).end();
            }
            return new Written(
                    text.append(code, at, code.length()).toString().getBytes(StandardCharsets.UTF_8), starts);
        }
    }

    /** What an analysis found. */
    static final class RegionsFound implements RegionSource {
        private final Found found;
        private int index;
        private int end;

        RegionsFound(Found found) {
            this.found = found;
        }

        @Override
        public Region region(int offset) {
            while (index > 0 && found.regionEnd(index - 1) > offset) {
                index--;
            }
            while (index < found.regions() && found.regionEnd(index) <= offset) {
                index++;
            }
            boolean inside = index < found.regions() && found.regionStart(index) <= offset;
            end = inside
                    ? found.regionEnd(index)
                    : index < found.regions() ? found.regionStart(index) : Integer.MAX_VALUE;
            return inside ? found.region(index) : Region.CODE;
        }

        @Override
        public int end() {
            return end;
        }
    }

    /** Makes elements of tokens. */
    private record Reader(Tokens tokens, Syntax syntax, List<Shape.Variable> variables, List<String> names) {
        List<Element> elements() {
            List<Element> elements = new ArrayList<>();
            for (int token = 0; token < tokens.size(); token++) {
                Shape.Variable variable = variable(token);
                if (variable == null) {
                    elements.add(new Literal(token));
                    continue;
                }
                int number = names.indexOf(variable.name()); // none of one without a name
                elements.add(variable.isRun() ? new Run(number) : new Single(number, limit(token), isHeld(token)));
            }
            return List.copyOf(elements);
        }

        private Shape.Variable variable(int token) {
            if (token < 0 || tokens.kind(token) != Tokens.WORD) {
                return null;
            }
            String text = tokens.text(token);
            return text.charAt(0) == BEGINS
                    ? variables.get(Integer.parseInt(text.substring(1, text.indexOf(ENDS))))
                    : null;
        }

        private int limit(int token) {
            return Math.min(limitOfRight(token + 1), limitOfLeft(token - 1));
        }

        private boolean isMiddle(int token) {
            return tokens.sign(token - 1) == '?' && tokens.sign(token + 1) == ':';
        }

        private int limitOfRight(int token) {
            if (isMiddle(token - 1)) {
                return Syntax.ALL;
            }
            if (token >= tokens.size() || variable(token) != null) {
                return Syntax.ANY;
            }
            int sign = tokens.sign(token);
            if (sign == 0) {
                boolean isReserved =
                        tokens.kind(token) == Tokens.WORD && !tokens.word(token).isName();
                int level = isReserved ? syntax.levelOfWord(tokens.text(token)) : Syntax.NONE;
                return level == Syntax.NONE ? Syntax.ANY : level;
            }
            if (sign == '(' || sign == '[' || syntax.isMember(sign) || Syntax.isBehind(sign)) {
                return Syntax.POSTFIX;
            }
            if (Syntax.assigns(sign)) {
                return Syntax.UNARY;
            }
            int level = syntax.levelOfSign(sign);
            return switch (level) {
                case Syntax.NONE -> Syntax.ANY;
                case Syntax.TERNARY -> level - 1;
                case Syntax.LAMBDA -> Syntax.POSTFIX;
                default -> level;
            };
        }

        private int limitOfLeft(int token) {
            if (token < 0 || variable(token) != null) {
                return Syntax.ANY;
            }
            int sign = tokens.sign(token);
            if (sign == 0) {
                if (tokens.kind(token) != Tokens.WORD || tokens.word(token).isName()) {
                    return Syntax.ANY;
                }
                String word = tokens.text(token);
                int level = syntax.levelOfWord(word);
                return word.equals("new")
                        ? Syntax.NAME
                        : level != Syntax.NONE
                                ? level - 1
                                : word.equals("not")
                                        ? Syntax.NOT
                                        : Syntax.isPrefixWord(word) ? Syntax.UNARY : Syntax.ANY;
            }
            if (syntax.isMember(sign) || syntax.isOfName(sign)) {
                return Syntax.POSTFIX;
            }
            boolean hasLeft =
                    token > 0 && (variable(token - 1) != null || new Operands(tokens, syntax).isOperandEnd(token - 1));
            if (syntax.isPrefix(sign) && !hasLeft) {
                return Syntax.UNARY;
            }
            int level = syntax.levelOfSign(sign);
            return switch (level) {
                case Syntax.NONE -> Syntax.ANY;
                case Syntax.TERNARY -> isMiddle(token + 1) ? Syntax.ALL : Syntax.ANY;
                default -> level - 1;
            };
        }

        /** Whether a variable stands alone between brackets, commas and the like. */
        private boolean isHeld(int token) {
            int right = tokens.sign(token + 1);
            boolean ends = right == ',' || right == ';' || right == ')' || right == ']' || right == '}';
            return ends && token > 0 && variable(token - 1) == null && begins(token - 1);
        }

        private boolean begins(int left) {
            int sign = tokens.sign(left);
            if (sign != 0) {
                return sign == ','
                        || sign == ';'
                        || tokens.opens(left)
                        || Syntax.assigns(sign)
                        || sign == Syntax.code("=>")
                        || sign == Syntax.code("->") && !syntax.arrowMembers;
            }
            return tokens.kind(left) == Tokens.WORD
                    && !tokens.word(left).isName()
                    && tokens.word(left).role() == Role.STATEMENT
                    && !tokens.text(left).equals("new");
        }
    }
}
