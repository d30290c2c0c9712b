package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.CallsAnswer;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.Spots;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Calls;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.load.SearchThreadsOnly;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/calls} */
@RestController
class CallsController {
    private static final Duration LONGEST = Duration.ofSeconds(3);
    private static final int MOST_DECLARATIONS = 20;

    private enum Direction {
        CALLERS,
        CALLEES
    }

    private final Contexts contexts;

    CallsController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(
            summary = "Who calls something, or what it calls",
            description =
                    "One level, by uses that are sure or likely; each end can be asked in turn. On default branches.")
    @GetMapping("/api/v1/calls")
    @SearchThreadsOnly
    CallsAnswer calls(
            Caller caller,
            @Parameter(description = "the name, as in Berth.assign; a kind may stand before it")
                    @RequestParam(defaultValue = "")
                    String symbol,
            @Parameter(description = "instead of it: a place where it is named, as REPOSITORY/PATH:LINE:COLUMN")
                    @RequestParam(defaultValue = "")
                    String of,
            @Parameter(description = "callers (the default), callees") @RequestParam(defaultValue = "")
                    String direction) {
        Direction wanted = Parameters.oneOf(Direction.values(), "direction", direction);
        if (symbol.isBlank() == of.isBlank()) {
            throw new BadRequestException(
                    "Say whose calls are asked for: symbol=Berth.assign, or of=REPOSITORY/PATH:LINE:COLUMN, not both.");
        }
        try (CallerContext context = contexts.open(caller)) {
            View view = context.view();
            List<Spot> meant = of.isBlank()
                    ? declared(view, symbol)
                    : SymbolPlace.parse(of).at(context).meant();
            List<Calls> all = wanted == Direction.CALLERS
                    ? List.of(Calls.of(
                            context.search().within(LONGEST), context.everywhere(), meant, overridden(view, meant)))
                    : meant.stream().map(spot -> Calls.madeBy(view, spot)).toList();
            List<CallsAnswer.End> ends = new ArrayList<>();
            all.forEach(calls -> calls.ends().forEach(end -> ends.add(end(view, end))));
            return new CallsAnswer(
                    Targets.of(view, Navigation.targets(meant)),
                    Parameters.lower(wanted),
                    ends,
                    all.stream().mapToLong(Calls::byName).sum(),
                    all.stream().allMatch(Calls::exact));
        }
    }

    private static List<Spot> overridden(View view, List<Spot> methods) {
        List<Spot> all = new ArrayList<>();
        for (Spot method : methods) {
            new Navigation(view, method.branchNumber(), method.file())
                    .overridden(method).stream()
                            .filter(spot -> Stream.concat(methods.stream(), all.stream())
                                    .noneMatch(spot::isSameAs))
                            .forEach(all::add);
        }
        return all;
    }

    /** @throws NotFoundException if nothing is declared so, as far as the caller can see */
    private static List<Spot> declared(View view, String symbol) {
        SymbolName name = SymbolName.of(symbol);
        int first = IntStream.range(0, view.branches().size())
                .filter(number -> view.branch(number).isDefault())
                .findFirst()
                .orElse(-1);
        List<Spot> spots = first < 0
                ? List.of()
                : new Spots(view, first)
                        .of(name.name()).stream()
                                .filter(spot -> view.branch(spot.branchNumber()).isDefault()
                                        && name.takes(spot.declared().kind(), spot.container()))
                                .toList();
        if (spots.isEmpty()) {
            throw new NotFoundException(
                    "Nothing that is indexed declares " + symbol
                            + ". Names are matched as they are written, capitals too; a search for symbols finds parts of them.");
        }
        if (spots.size() > MOST_DECLARATIONS) {
            throw new BadRequestException(symbol + " is declared at " + spots.size()
                    + " places. Say more of it, as in Berth.assign, or ask by a place.");
        }
        return spots;
    }

    private static CallsAnswer.End end(View view, Calls.End end) {
        Branch branch = view.branch(end.branchNumber());
        String path = view.snapshot(end.branchNumber()).path(end.file());
        return new CallsAnswer.End(
                end.declaration().map(target -> Targets.of(view, target)).orElse(null),
                branch.repository(),
                branch.name(),
                path,
                end.declaration()
                        .filter(_ -> branch.isDefault())
                        .map(target -> branch.repository() + "/" + path + ":" + target.line() + ":" + target.column())
                        .orElse(null),
                end.surest().label(),
                end.sites().stream()
                        .map(site -> new CallsAnswer.Site(
                                site.line(),
                                site.column(),
                                site.text(),
                                site.certainty().label()))
                        .toList());
    }
}
