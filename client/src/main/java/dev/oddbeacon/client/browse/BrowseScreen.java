package dev.oddbeacon.client.browse;

import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.client.options.ReadingOptions;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Terminal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jline.utils.AttributedString;
import org.jline.utils.AttributedStringBuilder;
import org.jline.utils.AttributedStyle;

/** Draws a reader's state: what is asked, the hits, and the code of the current one. */
final class BrowseScreen {
    private static final AttributedStyle PLAIN = AttributedStyle.DEFAULT;
    private static final AttributedStyle QUIET =
            AttributedStyle.DEFAULT.foreground(AttributedStyle.BRIGHT | AttributedStyle.BLACK);
    private static final AttributedStyle MATCH =
            AttributedStyle.DEFAULT.foreground(AttributedStyle.BLACK).background(AttributedStyle.YELLOW);
    private static final AttributedStyle STRONG = AttributedStyle.BOLD;
    private static final AttributedStyle WRONG = AttributedStyle.DEFAULT.foreground(AttributedStyle.RED);
    private static final int TAB = 4;
    private static final String KEYS =
            "\u2193\u2191 hit  Tab lines/files  ^S scope  ^R reading  ^T case  ^W words  ^O editor  ^X choose  Enter print  Esc leave  Alt+\u2193\u2191 file  Shift+\u2193\u2191 code";

    private BrowseScreen() {}

    /** @param cursor where the caret stands, in columns of the first line */
    record Drawn(List<AttributedString> lines, int cursor) {}

    /**
     * Draws.
     *
     * @param code the lines of the current item's file
     * @param rows of the screen, at least 6
     */
    static Drawn draw(BrowseState state, Names names, List<String> code, int rows, int columns) {
        List<AttributedString> lines = new ArrayList<>();
        BrowseQuest quest = state.quest();
        String prompt = (state.editsScope()
                        ? "scope"
                        : quest.subject().name().toLowerCase(Locale.ROOT) + ", " + quest.reading()
                                + (quest.caseMode() == ReadingOptions.CaseMode.AUTO
                                        ? ""
                                        : ", case " + quest.caseMode().name().toLowerCase(Locale.ROOT))
                                + (quest.word() ? ", whole words" : ""))
                + ": ";
        AttributedStringBuilder first = new AttributedStringBuilder().styled(QUIET, prompt);
        int room = Math.max(1, columns - prompt.length() - 1);
        String edited = Terminal.clean(state.edited());
        int from = Math.max(0, state.caret() - room + 1); // the caret stays in sight
        first.styled(STRONG, edited.substring(from, Math.min(edited.length(), from + room)));
        lines.add(cut(first.toAttributedString(), columns));
        int cursor = prompt.length()
                + AttributedString.fromAnsi(edited.substring(from, Math.min(edited.length(), state.caret())))
                        .columnLength();

        String scope = quest.scope().isBlank() ? "in all repositories" : quest.scope();
        String standing = state.problem().isEmpty()
                ? state.summary()
                : state.problem().lines().findFirst().orElse("");
        lines.add(cut(
                new AttributedStringBuilder()
                        .styled(state.problem().isEmpty() ? PLAIN : WRONG, Terminal.clean(standing))
                        .styled(
                                QUIET,
                                "   " + Terminal.clean(scope)
                                        + (state.chosenCount() > 0 ? "   " + state.chosenCount() + " chosen" : ""))
                        .toAttributedString(),
                columns));

        int body = rows - 4; // the two above, the rule, the keys
        int list = Math.max(1, Math.min(state.items().size(), body / 2));
        hits(state, names, list, columns, lines);
        lines.add(rule(state, names, columns));
        code(state, code, body - list, columns, lines);
        while (lines.size() < rows - 1) {
            lines.add(AttributedString.EMPTY);
        }
        lines.add(cut(new AttributedString(KEYS, QUIET), columns));
        return new Drawn(lines, Math.min(cursor, columns - 1));
    }

    private static void hits(BrowseState state, Names names, int count, int columns, List<AttributedString> lines) {
        int top = Math.clamp(
                state.current() - count / 2L, 0, Math.max(0, state.items().size() - count));
        for (int i = top; i < Math.min(top + count, state.items().size()); i++) {
            BrowseItem item = state.items().get(i);
            boolean isCurrent = i == state.current();
            AttributedStringBuilder line = new AttributedStringBuilder()
                    .styled(
                            isCurrent ? STRONG : QUIET,
                            (isCurrent ? "\u258c" : " ") + (state.isChosen(item) ? "\u2713" : " "));
            if (item.line() == 0) {
                line.styled(QUIET, Terminal.clean(names.start(item.repository())));
                marked(line, shown(names, item), matchesIn(names, item), isCurrent ? STRONG : PLAIN);
            } else {
                String name = Terminal.clean(names.of(item.repository(), item.path()));
                int most = Math.max(12, columns / 3);
                line.styled(
                        isCurrent ? STRONG : QUIET,
                        (name.length() > most ? "\u2026" + name.substring(name.length() - most + 1) : name) + ":"
                                + item.line() + "  ");
                int indent = item.text().length() - item.text().stripLeading().length();
                marked(line, item.text().substring(indent), shifted(item.matches(), indent), PLAIN);
            }
            lines.add(cut(line.toAttributedString(), columns));
        }
        if (state.items().isEmpty()) {
            lines.add(AttributedString.EMPTY);
        }
    }

    private static String shown(Names names, BrowseItem item) {
        return names.shown(item.repository(), item.path());
    }

    private static List<Match> matchesIn(Names names, BrowseItem item) {
        String shown = shown(names, item);
        return item.path().endsWith(shown) ? shifted(item.matches(), item.path().length() - shown.length()) : List.of();
    }

    private static List<Match> shifted(List<Match> matches, int by) {
        return matches.stream()
                .filter(match -> match.end() > by)
                .map(match -> new Match(Math.max(0, match.start() - by), match.end() - by))
                .toList();
    }

    private static AttributedString rule(BrowseState state, Names names, int columns) {
        String title = state.item()
                .map(item -> " " + Terminal.clean(names.of(item.repository(), item.path())) + " on "
                        + Terminal.clean(item.branch()) + " ")
                .orElse("");
        String text = "\u2500\u2500" + title;
        return cut(new AttributedString(text + "\u2500".repeat(Math.max(0, columns - text.length())), QUIET), columns);
    }

    private static void code(
            BrowseState state, List<String> code, int count, int columns, List<AttributedString> lines) {
        if (state.item().isEmpty()) {
            return;
        }
        BrowseItem item = state.item().get();
        int hit = Math.max(1, item.line());
        int top = Math.clamp(hit - 1L - count / 3 + state.scrolled(), 0, Math.max(0, code.size() - count));
        for (int number = top + 1; number <= Math.min(code.size(), top + count); number++) {
            boolean isHit = number == item.line();
            AttributedStringBuilder line = new AttributedStringBuilder()
                    .styled(
                            isHit ? STRONG : QUIET,
                            String.format(Locale.ROOT, "%s%5d  ", isHit ? "\u258c" : " ", number));
            int current = number;
            List<Match> matches = state.items().stream()
                    .filter(other -> other.line() == current
                            && other.path().equals(item.path())
                            && other.repository().equals(item.repository())
                            && code.get(current - 1).equals(other.text()))
                    .findFirst()
                    .map(BrowseItem::matches)
                    .orElse(List.of());
            marked(line, code.get(number - 1), matches, PLAIN);
            lines.add(cut(line.toAttributedString(), columns));
        }
    }

    /** Text of a repository with its matches; tabs become spaces. */
    private static void marked(AttributedStringBuilder line, String text, List<Match> matches, AttributedStyle style) {
        int at = 0;
        for (Match match : matches) {
            int start = Math.clamp(match.start(), at, text.length());
            int end = Math.clamp(match.end(), start, text.length());
            line.styled(style, plain(text.substring(at, start))).styled(MATCH, plain(text.substring(start, end)));
            at = end;
        }
        line.styled(style, plain(text.substring(at)));
    }

    private static String plain(String text) {
        return Terminal.clean(text.replace("\t", " ".repeat(TAB)));
    }

    private static AttributedString cut(AttributedString line, int columns) {
        return line.columnLength() <= columns ? line : line.columnSubSequence(0, columns);
    }
}
