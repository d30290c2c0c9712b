package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.ResourceOperation;
import org.eclipse.lsp4j.SnippetTextEdit;
import org.eclipse.lsp4j.TextDocumentEdit;
import org.eclipse.lsp4j.TextEdit;
import org.eclipse.lsp4j.VersionedTextDocumentIdentifier;
import org.eclipse.lsp4j.WorkspaceEdit;
import org.eclipse.lsp4j.jsonrpc.messages.Either;

/**
 * Gives a symbol another name: edits for the work trees that the editor has open, a patch for each other repository,
 * which is never changed from here.
 */
final class Renaming {
    private final Service service;
    private final Sources sources;
    private final Documents documents;
    private final Symbols symbols;
    private final Consumer<String> messages;

    Renaming(Service service, Sources sources, Documents documents, Symbols symbols, Consumer<String> messages) {
        this.service = service;
        this.sources = sources;
        this.documents = documents;
        this.symbols = symbols;
        this.messages = messages;
    }

    private record InFile(String repository, String branch, String path) {}

    /** @throws ServiceProblem if the new name is none, or the old one is not known well enough */
    WorkspaceEdit rename(Symbols.Named named, String newName, boolean takesVersions) {
        if (newName.isEmpty()
                || newName.chars().anyMatch(c -> Character.isWhitespace(c) || Character.isISOControl(c))) {
            throw new ServiceProblem("A name has no white space, and is not empty.", ExitStatus.WRONG);
        }
        Symbols.Named declared = declared(named);
        if (declared.told().isPresent() && declared.told().get().usesMeant() == null) {
            throw new ServiceProblem(
                    "Nothing that is indexed declares " + named.name()
                            + ", so it is not known which uses mean the same. Replace the text instead.",
                    ExitStatus.WRONG);
        }
        Map<InFile, List<Place>> byFile = symbols.references(declared, true, () -> false).stream()
                .filter(place -> place.name().equals(named.name()))
                .collect(Collectors.groupingBy(
                        place -> new InFile(place.repository(), place.branch(), place.path()),
                        () -> new TreeMap<>(Comparator.comparing(InFile::repository)
                                .thenComparing(InFile::branch)
                                .thenComparing(InFile::path)),
                        Collectors.toList()));
        List<TextDocumentEdit> edits = new ArrayList<>();
        Map<String, List<Replacement.EditedLine>> elsewhere = new TreeMap<>();
        byFile.forEach((file, places) -> {
            Optional<WorkFolder> folder = sources.ofRepository(file.repository());
            if (folder.isPresent()) {
                edit(folder.get(), file, places, named.name(), newName).ifPresent(edits::add);
            } else {
                elsewhere
                        .computeIfAbsent(file.repository(), _ -> new ArrayList<>())
                        .addAll(lines(file, places, named.name(), newName));
            }
        });
        if (!elsewhere.isEmpty()) {
            messages.accept(patches(elsewhere));
        }
        if (takesVersions) {
            return new WorkspaceEdit(edits.stream()
                    .map(Either::<TextDocumentEdit, ResourceOperation>forLeft)
                    .toList());
        }
        return new WorkspaceEdit(edits.stream()
                .collect(Collectors.toMap(
                        edit -> edit.getTextDocument().getUri(),
                        edit -> edit.getEdits().stream().map(Either::getLeft).toList())));
    }

    /** Asked for at its declaration, which knows what overrides it. */
    private Symbols.Named declared(Symbols.Named named) {
        return symbols.declarations(named).stream()
                .filter(place -> !place.isNow())
                .findFirst()
                .flatMap(symbols::told)
                .map(told -> new Symbols.Named(named.source(), named.name(), named.range(), Optional.of(told)))
                .orElse(named);
    }

    private Optional<TextDocumentEdit> edit(
            WorkFolder folder, InFile file, List<Place> places, String name, String newName) {
        List<Either<TextEdit, SnippetTextEdit>> edits = new ArrayList<>();
        List<String> lines =
                folder.text(file.path()).map(text -> text.lines().toList()).orElse(List.of());
        for (Place place : places) {
            OptionalInt line = place.isNow() ? OptionalInt.of(place.line()) : folder.now(file.path(), place.line());
            if (line.isPresent()
                    && line.getAsInt() <= lines.size()
                    && lines.get(line.getAsInt() - 1).startsWith(name, place.column() - 1)) {
                Position start = new Position(line.getAsInt() - 1, place.column() - 1);
                edits.add(Either.forLeft(new TextEdit(
                        new Range(start, new Position(start.getLine(), start.getCharacter() + name.length())),
                        newName)));
            }
        }
        Path there = folder.file(file.path());
        Optional<Documents.Open> open = documents.at(there);
        return edits.isEmpty()
                ? Optional.empty()
                : Optional.of(new TextDocumentEdit(
                        new VersionedTextDocumentIdentifier(
                                open.map(Documents.Open::uri)
                                        .orElse(there.toUri().toString()),
                                open.map(Documents.Open::version).orElse(null)),
                        edits));
    }

    /** The lines of a file of another repository, as they would be. */
    private List<Replacement.EditedLine> lines(InFile file, List<Place> places, String name, String newName) {
        String text = service.get(
                        Service.path("repositories", file.repository(), "file"),
                        new Service.Parameters().add("path", file.path()).add("rev", file.branch()),
                        FileContent.class)
                .text();
        List<String> lines = text == null ? List.of() : text.lines().toList();
        Map<Integer, List<Place>> byLine =
                places.stream().collect(Collectors.groupingBy(Place::line, TreeMap::new, Collectors.toList()));
        List<Replacement.EditedLine> edited = new ArrayList<>();
        byLine.forEach((line, ofLine) -> {
            String was = line <= lines.size() ? lines.get(line - 1) : "";
            StringBuilder with = new StringBuilder(was);
            ofLine.stream()
                    .map(place -> place.column() - 1)
                    .distinct()
                    .sorted(Comparator.reverseOrder())
                    .filter(at -> was.startsWith(name, at))
                    .forEach(at -> with.replace(at, at + name.length(), newName));
            if (!was.contentEquals(with)) {
                edited.add(new Replacement.EditedLine(
                        file.repository(), file.branch(), file.path(), line, was, with.toString()));
            }
        });
        return edited;
    }

    /** Writes a patch for each of the other repositories, and says where. */
    private String patches(Map<String, List<Replacement.EditedLine>> elsewhere) {
        try {
            Path folder = Files.createTempDirectory("oddbeacon-rename-");
            List<String> told = new ArrayList<>();
            for (Map.Entry<String, List<Replacement.EditedLine>> one : elsewhere.entrySet()) {
                byte[] patch = service.postBytes(
                        Service.path("replacements", "patches")
                                + new Service.Parameters().add("repository", one.getKey()),
                        new Replacement(
                                null, null, null, null, null, null, null, null, null, one.getValue(), null, null));
                Path file = folder.resolve(one.getKey().replace('/', '-') + ".patch");
                Files.write(file, patch);
                told.add(one.getKey() + " (" + Amounts.of(one.getValue().size(), "line") + ")");
            }
            return "It is named in other repositories too: " + String.join(", ", told) + ". In " + folder
                    + " lies a patch for each, which git apply takes.";
        } catch (IOException e) {
            throw new ServiceProblem("The patches could not be written: " + e.getMessage(), ExitStatus.FAILED);
        }
    }
}
