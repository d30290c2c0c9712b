package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.LineMap;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import org.eclipse.lsp4j.Hover;
import org.eclipse.lsp4j.MarkupContent;
import org.eclipse.lsp4j.MarkupKind;

/** What is told of a name where the pointer rests: its declaration, its comment, and where else it is used. */
final class Hovers {
    private static final int MOST_LINES = 30;
    private static final int MOST_REPOSITORIES = 4;

    private final Service service;
    private final Sources sources;
    private final Symbols symbols;
    private final Locations locations;

    Hovers(Service service, Sources sources, Symbols symbols, Locations locations) {
        this.service = service;
        this.sources = sources;
        this.symbols = symbols;
        this.locations = locations;
    }

    /** Empty if nothing is known of the name. */
    Optional<Hover> of(Symbols.Named named, boolean takesMarkdown) {
        List<Place> declarations = symbols.declarations(named);
        if (declarations.isEmpty()) {
            return Optional.empty();
        }
        Place first = declarations.getFirst();
        StringBuilder text = new StringBuilder();
        text.append(
                takesMarkdown ? fenced(first.signature(), type(named.source().path())) : first.signature() + "\n\n");
        String where = first.kind() + (first.container().isEmpty() ? "" : " of " + first.container()) + ", "
                + first.repository() + "/" + first.path();
        text.append(takesMarkdown ? plain(where) : where)
                .append(declarations.size() > 1 ? ", and " + (declarations.size() - 1) + " more" : "")
                .append("\n\n");
        comment(first)
                .ifPresent(comment ->
                        text.append(takesMarkdown ? plain(comment) : comment).append("\n\n"));
        named.told()
                .flatMap(this::uses)
                .ifPresent(
                        uses -> text.append(takesMarkdown ? plain(uses) : uses).append("\n\n"));
        if (takesMarkdown) {
            named.source()
                    .indexedLine(named.range().getStart().getLine() + 1)
                    .ifPresent(line -> text.append("[In the console](")
                            .append(locations.inConsole(named.source(), line))
                            .append(")"));
        }
        Hover hover = new Hover(new MarkupContent(
                takesMarkdown ? MarkupKind.MARKDOWN : MarkupKind.PLAINTEXT,
                text.toString().strip()));
        hover.setRange(named.range());
        return Optional.of(hover);
    }

    private static String type(String path) {
        return path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    /** Code of a repository between fences that it cannot end. */
    private static String fenced(String code, String type) {
        String fence = "```";
        while (code.contains(fence)) {
            fence += "`";
        }
        return fence + (type.chars().allMatch(Character::isLetterOrDigit) ? type : "") + "\n" + code + "\n" + fence
                + "\n\n";
    }

    /** Text of a repository, none of which means anything in Markdown. */
    private static String plain(String text) {
        StringBuilder plain = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if ("\\`*_{}[]<>#|&~".indexOf(c) >= 0) {
                plain.append('\\');
            }
            plain.append(c == '\n' ? "  \n" : String.valueOf(c));
        }
        return plain.toString();
    }

    /** How often it is meant, and where. */
    private Optional<String> uses(SymbolAt told) {
        if (told.usesMeant() == null || told.usesMeant().of() == null) {
            return told.uses() == 0
                    ? Optional.empty()
                    : Optional.of("The name is used " + Amounts.of(told.uses(), "time") + ".");
        }
        SymbolsAnswer answer = service.get(
                Service.path("search", "symbols"),
                new Service.Parameters()
                        .add("of", told.usesMeant().of())
                        .add("role", "use")
                        .add("limit", 1),
                SymbolsAnswer.class);
        String repositories = answer.facets().repository().stream()
                .limit(MOST_REPOSITORIES)
                .map(LinesAnswer.Facet::value)
                .collect(Collectors.joining(", "));
        int more = answer.counts().repositories() - MOST_REPOSITORIES;
        return Optional.of(
                answer.counts().symbols() == 0
                        ? "Not used anywhere that is indexed."
                        : (answer.counts().exact() ? "Used " : "Used at least ")
                                + Amounts.of(answer.counts().symbols(), "time") + ", in " + repositories
                                + (more > 0 ? " and " + more + " more" : "") + ".");
    }

    /** The comment above a declaration, or the string that it begins with. */
    private Optional<String> comment(Place place) {
        Optional<WorkFolder> folder = sources.ofRepository(place.repository());
        try {
            Optional<String> text = folder.isPresent()
                    ? folder.get().text(place.path())
                    : Optional.ofNullable(service.get(
                                    Service.path("repositories", place.repository(), "file"),
                                    new Service.Parameters()
                                            .add("path", place.path())
                                            .add("rev", place.branch()),
                                    FileContent.class)
                            .text());
            OptionalInt line = folder.isEmpty() || place.isNow()
                    ? OptionalInt.of(place.line())
                    : folder.get().now(place.path(), place.line());
            return text.isEmpty() || line.isEmpty()
                    ? Optional.empty()
                    : comment(
                            new Source(
                                    place.repository(),
                                    "",
                                    place.path(),
                                    Optional.empty(),
                                    text.get(),
                                    Optional.of(LineMap.SAME)),
                            line.getAsInt());
        } catch (ServiceProblem e) {
            return Optional.empty();
        }
    }

    static Optional<String> comment(Source source, int line) {
        List<String> lines = source.text().lines().toList();
        int[] regions = DocumentAnswers.regions(source);
        int[] starts = new int[lines.size() + 1];
        for (int i = 0; i < lines.size(); i++) {
            starts[i + 1] = starts[i] + lines.get(i).length() + 1;
        }
        List<String> found = new ArrayList<>();
        int at = line - 2;
        while (at >= 0 && isMark(lines.get(at))) {
            at--;
        }
        while (at >= 0 && found.size() < MOST_LINES && isWithin(lines.get(at), starts[at], regions, 1)) {
            found.add(bare(lines.get(at--)));
        }
        Collections.reverse(found);
        if (found.isEmpty()) { // some languages say it below
            int below = line;
            while (below < lines.size()
                    && found.size() < MOST_LINES
                    && isWithin(lines.get(below), starts[below], regions, 2)) {
                found.add(bare(lines.get(below++)));
            }
        }
        String comment = String.join("\n", found).strip();
        return comment.isEmpty() ? Optional.empty() : Optional.of(comment);
    }

    /** Whether a line is an annotation or an attribute of what follows. */
    private static boolean isMark(String line) {
        String text = line.strip();
        return text.startsWith("@") || text.startsWith("#[");
    }

    /** Whether all of a line that is not white space lies in regions of a kind. */
    private static boolean isWithin(String line, int start, int[] regions, int kind) {
        String text = line.strip();
        int from = start + line.indexOf(text);
        for (int i = 0; i < regions.length; i += 3) {
            if (regions[i + 2] == kind && regions[i] <= from && regions[i + 1] >= from + text.length()) {
                return !text.isEmpty() || regions[i] < from;
            }
        }
        return false;
    }

    /** A line of a comment without its marks. */
    private static String bare(String line) {
        String text = line.strip();
        for (String mark :
                List.of("/**", "/*", "*/", "///", "//!", "//", "\"\"\"", "'''", "#", "--", ";;", "* ", "*")) {
            if (text.startsWith(mark)) {
                text = text.substring(mark.length());
                break;
            }
        }
        for (String mark : List.of("*/", "\"\"\"", "'''")) {
            if (text.endsWith(mark)) {
                text = text.substring(0, text.length() - mark.length());
            }
        }
        return text.strip();
    }
}
