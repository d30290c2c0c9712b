package dev.oddbeacon.client.command;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Waits until repositories can be searched, showing how far they are. */
final class Waiting {
    private static final int PAUSE_MILLIS = 150;

    private final Service service;

    Waiting(Service service) {
        this.service = service;
    }

    /** @return the exit status: failed if one of them is */
    int until(List<String> names) {
        List<String> open = new ArrayList<>(names);
        int status = ExitStatus.FOUND;
        while (!open.isEmpty()) {
            Map<String, RepositoryInfo> all = new HashMap<>();
            ReposCommand.all(service).forEach(info -> all.put(info.name(), info));
            for (String name : List.copyOf(open)) {
                RepositoryInfo info = all.get(name);
                if (info == null) {
                    open.remove(name);
                    Terminal.complain(name + " was removed meanwhile.");
                    status = ExitStatus.FAILED;
                } else if (info.state().equals("ready") || info.state().equals("failed")) {
                    open.remove(name);
                    status = info.state().equals("failed") ? ExitStatus.FAILED : status;
                    report(info);
                }
            }
            open.stream()
                    .map(all::get)
                    .filter(info -> info != null && info.progress() != null)
                    .findFirst()
                    .ifPresent(info -> Terminal.progress(info.name() + "  " + describe(info.progress())));
            if (!open.isEmpty()) {
                pause();
            }
        }
        return status;
    }

    private static void report(RepositoryInfo info) {
        Terminal.progress("");
        if (info.state().equals("failed")) {
            Terminal.complain(info.name() + ": " + info.problem());
            return;
        }
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        long lines =
                info.branches().stream().mapToLong(RepositoryInfo.Branch::lines).sum();
        int files =
                info.branches().stream().mapToInt(RepositoryInfo.Branch::files).sum();
        terminal.line(info.name() + "  " + Amounts.of(files, "file") + ", " + Amounts.of(lines, "line")
                + (info.problem() == null ? "" : "  " + Terminal.clean(info.problem())));
        Terminal.flush();
    }

    private static String describe(RepositoryInfo.Progress progress) {
        boolean bytes = progress.phase().equals("indexing");
        String done = bytes ? Amounts.bytes(progress.done()) : Amounts.number(progress.done());
        String total = bytes ? Amounts.bytes(progress.total()) : Amounts.number(progress.total());
        return progress.phase() + "  " + done + (progress.total() > 0 ? " of " + total : "");
    }

    private static void pause() {
        try {
            Thread.sleep(PAUSE_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ServiceProblem("interrupted", ExitStatus.FAILED);
        }
    }
}
