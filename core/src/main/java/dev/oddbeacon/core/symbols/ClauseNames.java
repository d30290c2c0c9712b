package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery.Node;
import dev.oddbeacon.core.query.matching.Plan;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.text.CaseFolding;
import java.lang.foreign.MemorySegment;
import java.util.List;

/** Names that a query of text clauses holds for: each name is a text of one line. */
final class ClauseNames implements NameMatcher {
    private static final String SIGNS = "\\.[](){}+^$|";

    private final CompiledQuery query;
    private final boolean whole;
    private final String beginning;

    private ClauseNames(CompiledQuery query, boolean whole, String beginning) {
        this.query = query;
        this.whole = whole;
        this.beginning = beginning;
    }

    static ClauseNames of(Query query) {
        return new ClauseNames(CompiledQuery.of(query, CaseMode.AUTO), false, "");
    }

    /** Names that are a whole one, in which * and ? stand for others. */
    static ClauseNames whole(SymbolName name, CaseMode caseMode) {
        String text = name.name();
        StringBuilder regex = new StringBuilder("^");
        text.codePoints()
                .forEach(c -> regex.append(
                        c == '*'
                                ? ".*"
                                : c == '?' ? "." : (SIGNS.indexOf(c) >= 0 ? "\\" : "") + Character.toString(c)));
        int wild = (int) text.chars()
                .takeWhile(c -> c != '*' && c != '?' && c < 0x80)
                .count(); // capitals of others stand elsewhere in the index
        int[] start = CaseFolding.fold(text.substring(0, wild));
        Query pattern = new TextClause.Pattern(regex.append('$').toString());
        return new ClauseNames(
                CompiledQuery.of(
                        new Query.Marked(caseMode.ignores(text) ? Query.Mark.ANYCASE : Query.Mark.EXACTLY, pattern),
                        CaseMode.AUTO),
                true,
                new String(start, 0, start.length));
    }

    @Override
    public Plan plan() {
        return plan(query.root());
    }

    private Plan plan(Node node) {
        return switch (node) {
            case Node.And and -> Plan.allOf(and.parts().stream().map(this::plan).toList());
            case Node.Or or -> Plan.anyOf(or.parts().stream().map(this::plan).toList());
            case Node.Clause clause
            when clause.wanted() -> query.clauses().get(clause.number()).plan();
            case Node.Clause _, Node.Condition _, Node.Holds _, Node.Found _, Node.Everything _ -> Plan.ANYTHING;
        };
    }

    @Override
    public String beginning() {
        return beginning;
    }

    @Override
    public Judge judge() {
        List<TextMatcher.Finder> finders = query.clauses().stream()
                .map(clause -> clause.finder(() -> false))
                .toList();
        return new Judge() {
            private byte[] array = {};
            private MemorySegment memory = MemorySegment.NULL;

            @Override
            public int points(byte[] names, int start, int end) {
                if (names != array) {
                    array = names;
                    memory = MemorySegment.ofArray(names);
                }
                return holds(query.root(), start, end) ? whole ? 100 : 50 : NOT_MEANT;
            }

            private boolean holds(Node node, int start, int end) {
                return switch (node) {
                    case Node.And and -> and.parts().stream().allMatch(part -> holds(part, start, end));
                    case Node.Or or -> or.parts().stream().anyMatch(part -> holds(part, start, end));
                    case Node.Clause clause -> {
                        TextMatcher.Finder finder = finders.get(clause.number());
                        finder.begin(memory, start, end, start, end);
                        yield finder.next() == clause.wanted();
                    }
                    case Node.Condition _, Node.Holds _, Node.Found _ -> true;
                    case Node.Everything everything -> everything.wanted();
                };
            }
        };
    }
}
