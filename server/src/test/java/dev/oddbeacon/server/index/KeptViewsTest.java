package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import org.junit.jupiter.api.Test;

class KeptViewsTest {
    @Test
    void aViewThatSeveralCursorsNeedIsLetGoWithTheLast() {
        KeptViews kept = new KeptViews();
        View view = ViewBuilder.empty();
        for (int cursors = 1; cursors <= 3; cursors++) {
            kept.keep(view);
        }
        view.release(); // by its maker
        assertThat(kept.acquire(view.number())).contains(view);
        view.release();
        kept.letGo();
        assertThat(view.acquire()).as("whether somebody holds it").isFalse();
    }
}
