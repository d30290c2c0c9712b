package dev.oddbeacon.client.browse;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.client.options.Editor;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** Asks the service for a reader in the terminal, in the background: only the newest question counts. */
final class BrowseSearch implements AutoCloseable {
    private static final int PAGE = 200;
    private static final int KEPT_FILES = 30;

    private final Service service;
    private final String asker = UUID.randomUUID().toString();
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    private final AtomicLong latest = new AtomicLong();
    private final Semaphore oneAtATime =
            new Semaphore(1); // an older question must not reach the service after a newer one
    private final LinkedBlockingQueue<Consumer<BrowseState>> news = new LinkedBlockingQueue<>();
    private final Map<String, List<String>> files =
            new LinkedHashMap<>(); // lines by file; the one being read is there already, empty
    private volatile String next = "";
    private volatile boolean reads;
    private ScopeOptions scope;
    private String scopeText = "";

    BrowseSearch(Service service) {
        this.service = service;
    }

    /** Takes over what has come in since. @return whether anything has */
    boolean update(BrowseState state) {
        boolean changed = false;
        for (Consumer<BrowseState> change = news.poll(); change != null; change = news.poll()) {
            change.accept(state);
            changed = true;
        }
        return changed;
    }

    void ask(BrowseQuest quest) {
        long number = latest.incrementAndGet();
        next = "";
        if (quest.text().isEmpty() && quest.subject() == BrowseQuest.Subject.LINES) {
            news.add(state -> state.found(quest, List.of(), "Type what to look for."));
            return;
        }
        threads.execute(() -> answer(quest, number, ""));
    }

    /** Asks for the page that follows, once. */
    void more(BrowseQuest quest) {
        String cursor = next;
        if (!cursor.isEmpty() && !reads) {
            reads = true;
            threads.execute(() -> answer(quest, latest.get(), cursor));
        }
    }

    private void answer(BrowseQuest quest, long number, String cursor) {
        oneAtATime.acquireUninterruptibly();
        try {
            if (number != latest.get()) {
                return;
            }
            List<BrowseItem> items = new ArrayList<>();
            String words = quest.subject() == BrowseQuest.Subject.LINES
                    ? lines(quest, cursor, number, items)
                    : files(quest, cursor, number, items);
            if (number == latest.get()) {
                news.add(state -> {
                    if (cursor.isEmpty()) {
                        state.found(quest, items, words);
                    } else {
                        state.more(quest, items);
                    }
                });
            }
        } catch (ServiceProblem problem) {
            String message = problem.mistakes().isEmpty()
                    ? problem.getMessage()
                    : problem.mistakes().getFirst().message();
            if (number == latest.get()) {
                news.add(state -> state.failed(quest, message));
            }
        } finally {
            reads = false;
            oneAtATime.release();
        }
    }

    private String lines(BrowseQuest quest, String cursor, long number, List<BrowseItem> into) {
        LinesAnswer answer = service.search(
                Service.path("search", "lines"),
                parameters(quest, cursor)
                        .add("context", 0)
                        .add("word", quest.word())
                        .add("typing", true),
                LinesAnswer.class);
        answer.files().forEach(file -> into.addAll(BrowseItem.of(file)));
        keep(number, answer.next());
        LinesAnswer.Counts counts = answer.counts();
        return counts.files() == 0
                ? "Nothing found in " + Amounts.of(answer.index().repositories(), "repository", "repositories") + "."
                : (counts.exact() ? "" : "At least ")
                        + (counts.hits() > 0 ? Amounts.of(counts.hits(), "hit") + " in " : "")
                        + Amounts.of(counts.files(), "file") + " of "
                        + Amounts.of(counts.repositories(), "repository", "repositories")
                        + (answer.index().complete() ? "" : "; not complete");
    }

    private String files(BrowseQuest quest, String cursor, long number, List<BrowseItem> into) {
        FilesAnswer answer =
                service.search(Service.path("search", "files"), parameters(quest, cursor), FilesAnswer.class);
        answer.files().forEach(file -> into.add(BrowseItem.of(file)));
        keep(number, answer.next());
        return Amounts.of(answer.counts().files(), "file") + " of "
                + Amounts.of(answer.counts().repositories(), "repository", "repositories")
                + (answer.index().complete() ? "" : "; not complete");
    }

    private void keep(long number, String cursor) {
        if (number == latest.get()) {
            next = cursor == null ? "" : cursor;
        }
    }

    private Service.Parameters parameters(BrowseQuest quest, String cursor) {
        Service.Parameters parameters = new Service.Parameters()
                .add("q", quest.text())
                .add("reading", quest.reading())
                .add("case", quest.caseMode())
                .add("limit", PAGE)
                .add("asker", asker);
        if (!cursor.isEmpty()) {
            parameters.add("cursor", cursor);
        }
        scope(quest.scope()).addTo(parameters, service);
        return parameters;
    }

    /** The noun for files in messages about a scope. */
    Names names(String scope) {
        return scope(scope).names(service);
    }

    /**
     * Options of a scope, as they are typed; read again only when they have changed, as a work tree or a list is looked
     * at once.
     */
    private synchronized ScopeOptions scope(String options) {
        if (scope != null && scopeText.equals(options)) {
            return scope;
        }
        ScopeLine line = new ScopeLine();
        try {
            new CommandLine(line)
                    .setExpandAtFiles(false)
                    .setAbbreviatedOptionsAllowed(false)
                    .parseArgs(Editor.words(options).toArray(String[]::new));
        } catch (CommandLine.ParameterException e) {
            throw new ServiceProblem(e.getMessage(), ExitStatus.WRONG);
        }
        scope = line.scope;
        scopeText = options;
        return scope;
    }

    @Command
    private static final class ScopeLine {
        @Mixin
        private ScopeOptions scope;
    }

    /** The lines of a file; empty until they are here. */
    List<String> file(BrowseItem item) {
        String name = item.repository() + "\n" + item.branch() + "\n" + item.path();
        synchronized (files) {
            List<String> lines = files.get(name);
            if (lines != null) {
                return lines;
            }
            files.put(name, List.of());
            if (files.size() > KEPT_FILES) {
                files.remove(files.keySet().iterator().next());
            }
        }
        threads.execute(() -> {
            List<String> lines;
            try {
                FileContent content = service.get(
                        Service.path("repositories", item.repository(), "file"),
                        new Service.Parameters().add("path", item.path()).add("rev", item.branch()),
                        FileContent.class);
                lines = content.text() == null
                        ? List.of("Not shown: " + content.skipped() + ".")
                        : content.text().lines().toList();
            } catch (ServiceProblem problem) {
                lines = List.of(problem.getMessage());
            }
            synchronized (files) {
                files.put(name, lines);
            }
            news.add(_ -> {});
        });
        return List.of();
    }

    @Override
    public void close() {
        latest.incrementAndGet();
        threads.shutdownNow();
    }
}
