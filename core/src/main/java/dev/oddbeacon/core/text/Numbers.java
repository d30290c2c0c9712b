package dev.oddbeacon.core.text;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Optional;

/**
 * Numbers as code and data write them: {@code 42}, {@code -3.5}, {@code .5}, {@code 1_000}, {@code 2.5e3}, {@code 0x1F},
 * {@code 0b101}, each perhaps with a few letters behind, such as a unit. What has two points or more, such as a version,
 * is no number, and neither are the digits of a name, or of something longer that begins with one.
 */
public final class Numbers {
    private static final int LARGEST_EXPONENT = 400;
    /** Digits before the point, or behind it; the words of an index are longer. */
    private static final int MOST_DIGITS = 40;
    /** Letters and digits of a unit or a type behind a number: {@code ms}, {@code px}, {@code usize}. */
    private static final int LONGEST_UNIT = 5;

    private static final int HEXADECIMAL = 16;
    private static final int BINARY = 2;

    private Numbers() {}

    /** Reads one number that is all of a text. Empty if it is none, or has something behind it. */
    public static Optional<BigDecimal> parse(String text) {
        Scan scan = new Scan(text);
        return scan.next() && scan.start() == 0 && scan.end() == text.length()
                ? Optional.of(scan.value())
                : Optional.empty();
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    /** Goes through the numbers of a line. */
    public static final class Scan {
        private final CharSequence line;
        private int at;
        private int start;
        private int end;
        private BigDecimal value = BigDecimal.ZERO;

        /** @param line without a line feed */
        public Scan(CharSequence line) {
            this.line = line;
        }

        /** Goes to the next number. @return false if there is none */
        public boolean next() {
            while (at < line.length()) {
                if (!isDigit(line.charAt(at))) {
                    at++;
                } else if (at > 0 && Words.isWordPart(Character.codePointBefore(line, at))) {
                    skipDigits();
                } else if (read()) {
                    return true;
                }
            }
            return false;
        }

        /** Where it begins, at its sign if it has one. */
        public int start() {
            return start;
        }

        /** Behind its last digit; letters may follow. */
        public int end() {
            return end;
        }

        public BigDecimal value() {
            return value;
        }

        private void skipDigits() {
            while (at < line.length() && isDigit(line.charAt(at))) {
                at++;
            }
        }

        /** @return whether what begins here is a number; afterwards the scan stands behind it in any case */
        private boolean read() {
            boolean leadingPoint = at > 0 && line.charAt(at - 1) == '.' && !isAfterPoint(at - 1);
            if (leadingPoint && at > 1 && belongsTo(line.charAt(at - 2))) {
                passRun();
                return false;
            }
            start = leadingPoint ? at - 1 : at;
            if (at + 2 < line.length() && line.charAt(at) == '0') {
                int radix = switch (line.charAt(at + 1)) {
                    case 'x', 'X' -> HEXADECIMAL;
                    case 'b', 'B' -> BINARY;
                    default -> 0;
                };
                if (radix != 0 && Character.digit(line.charAt(at + 2), radix) >= 0 && line.charAt(at + 2) < 0x80) {
                    int digits = readDigitsOf(radix);
                    return endsHere() && digits <= MOST_DIGITS && !leadingPoint;
                }
            }
            StringBuilder digits = new StringBuilder(leadingPoint ? "0." : "");
            boolean tooLong = readDigits(digits) > MOST_DIGITS;
            if (!leadingPoint && at + 1 < line.length() && line.charAt(at) == '.' && isDigit(line.charAt(at + 1))) {
                digits.append('.');
                at++;
                tooLong |= readDigits(digits) > MOST_DIGITS;
            }
            if (at + 1 < line.length() && line.charAt(at) == '.' && isDigit(line.charAt(at + 1))) {
                passRun(); // a version, an address
                return false;
            }
            int exponent = exponent();
            end = at;
            if (tooLong || Math.abs(exponent) > LARGEST_EXPONENT || !endsHere()) {
                return false;
            }
            value = new BigDecimal(digits.toString()).scaleByPowerOfTen(exponent);
            sign();
            return true;
        }

        /** Whether what follows in the word is short enough for a unit; goes behind it. */
        private boolean endsHere() {
            int letters = 0;
            while (at < line.length() && Words.isWordPart(Character.codePointAt(line, at))) {
                at += Character.charCount(Character.codePointAt(line, at));
                letters++;
            }
            return letters <= LONGEST_UNIT;
        }

        /** Two points are a range, not the beginning of a fraction. */
        private boolean isAfterPoint(int place) {
            return place > 0 && line.charAt(place - 1) == '.';
        }

        /** Whether a point behind this one leads to a part of it, as in {@code pair.1}. */
        private static boolean belongsTo(char before) {
            return Words.isWordPart(before) || Character.isSurrogate(before) || before == ')' || before == ']';
        }

        private void passRun() {
            while (at < line.length() && (isDigit(line.charAt(at)) || line.charAt(at) == '.')) {
                at++;
            }
        }

        /** @return characters read, underscores included */
        private int readDigits(StringBuilder into) {
            int from = at;
            while (at < line.length()) {
                char c = line.charAt(at);
                if (isDigit(c)) {
                    into.append(c);
                } else if (c != '_' || at + 1 >= line.length() || !isDigit(line.charAt(at + 1))) {
                    break;
                }
                at++;
            }
            return at - from;
        }

        private int readDigitsOf(int radix) {
            at += 2;
            StringBuilder digits = new StringBuilder();
            while (at < line.length()
                    && line.charAt(at) < 0x80
                    && (Character.digit(line.charAt(at), radix) >= 0 || line.charAt(at) == '_')) {
                if (line.charAt(at) != '_') {
                    digits.append(line.charAt(at));
                }
                at++;
            }
            end = at;
            int read = at - start;
            if (read <= MOST_DIGITS) { // turning a long one into a number takes the square of its length
                value = new BigDecimal(new BigInteger(digits.toString(), radix));
                sign();
            }
            return read;
        }

        /** Reads {@code e3}, {@code E-7}; 0 if there is none. */
        private int exponent() {
            if (at >= line.length() || line.charAt(at) != 'e' && line.charAt(at) != 'E') {
                return 0;
            }
            int from = at + 1;
            boolean signed = from < line.length() && (line.charAt(from) == '-' || line.charAt(from) == '+');
            int to = signed ? from + 1 : from;
            while (to < line.length() && isDigit(line.charAt(to))) {
                to++;
            }
            if (to == from + (signed ? 1 : 0)) {
                return 0;
            }
            at = to;
            String digits = line.subSequence(signed ? from + 1 : from, to).toString();
            int exponent = digits.length() > 4 ? LARGEST_EXPONENT + 1 : Integer.parseInt(digits);
            return signed && line.charAt(from) == '-' ? -exponent : exponent;
        }

        /** A minus in front belongs to it, unless something is there that it is taken from. */
        private void sign() {
            if (start > 0
                    && line.charAt(start - 1) == '-'
                    && (start == 1 || !belongsTo(line.charAt(start - 2)) && line.charAt(start - 2) != '-')) {
                start--;
                value = value.negate();
            }
        }
    }
}
