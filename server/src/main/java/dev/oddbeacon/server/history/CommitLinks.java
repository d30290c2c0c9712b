package dev.oddbeacon.server.history;

import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.web.ConsolePage;
import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /commit}: the page of the console that shows a commit, with its message. */
@RestController
class CommitLinks {
    private final PastController past;
    private final ConsolePage page;

    CommitLinks(PastController past, ConsolePage page) {
        this.past = past;
        this.page = page;
    }

    @Hidden
    @GetMapping("/commit")
    ResponseEntity<String> page(
            Caller caller,
            @RequestParam(name = "in", defaultValue = "") String repository,
            @RequestParam(defaultValue = "") String id) {
        return page.about(() -> {
            CommitInfo commit = past.commit(caller, repository, id).commit();
            return new ConsolePage.About(commit.summary() + " in " + repository, commit.message());
        });
    }
}
