package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Patterns;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.source.Region;
import java.util.function.BooleanSupplier;

/** Matches where a symbol is declared, used, or either. */
final class SymbolMatcher implements TextMatcher {
    private final SymbolRole role;
    private final SymbolName name;
    private final TextMatcher inner;

    SymbolMatcher(SymbolRole role, SymbolName name, CaseMode caseMode) {
        this.role = role;
        this.name = name;
        this.inner = name.isWild()
                ? new RegexMatcher(dev.oddbeacon.core.text.regex.Regex.whole(Patterns.wildcard(name.name(), caseMode)))
                : new PlainMatcher(name.name(), caseMode, true);
    }

    @Override
    public Plan plan() {
        return inner.plan();
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new FilteredFinder(inner.finder(stop)) {
            @Override
            boolean takes(FileParts parts, long start, long end) {
                if (parts.isDeclared(start, end)) {
                    return role != SymbolRole.USE && (!name.asksMore() || parts.isDeclared(start, end, name));
                }
                return role != SymbolRole.DECLARATION
                        && parts.region(start) == Region.CODE
                        && parts.isName(start, end)
                        && (!name.asksMore() || parts.isUse(start, end, name));
            }
        };
    }
}
