package dev.oddbeacon.core.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class SearchPoolTest {
    private final SearchPool pool = new SearchPool(2);

    @AfterEach
    void close() {
        pool.close();
    }

    @Test
    void aShortSearchIsNotStuckBehindLongOnes() throws Exception {
        AtomicBoolean enough = new AtomicBoolean();
        for (int i = 0; i < 20; i++) {
            pool.runInSlices(new Budget(Duration.ofMinutes(1)), _ -> enough.get()); // each would go on for ever
        }
        assertThat(pool.runInSlices(new Budget(Duration.ofMinutes(1)), _ -> true)
                        .get(5, TimeUnit.SECONDS))
                .isNull();
        assertThat(pool.<Integer>call(new Budget(Duration.ofMinutes(1)), () -> 7))
                .isEqualTo(7);
        enough.set(true);
    }

    @Test
    void slicesRunUntilTheWorkIsDone() throws Exception {
        AtomicInteger slices = new AtomicInteger();
        Future<?> done = pool.runInSlices(new Budget(Duration.ofMinutes(1)), _ -> slices.incrementAndGet() == 5);
        done.get(5, TimeUnit.SECONDS);
        assertThat(slices).hasValue(5);
    }

    @Test
    void aFailureReachesWhoWaits() {
        Future<?> failing = pool.runInSlices(new Budget(Duration.ofMinutes(1)), _ -> {
            throw new IllegalStateException("a defect");
        });
        assertThatThrownBy(() -> SearchPool.await(failing))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("a defect");
        assertThatThrownBy(() -> pool.call(new Budget(Duration.ofMinutes(1)), () -> {
                    throw new IllegalArgumentException("another");
                }))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void whatIsShortIsDoneByTheThreadThatAsks() {
        Set<Thread> threads = ConcurrentHashMap.newKeySet();
        List<Integer> doubled = pool.map(new Budget(Duration.ofMinutes(1)), List.of(1, 2, 3), number -> {
            threads.add(Thread.currentThread());
            return 2 * number;
        });
        assertThat(doubled).containsExactly(2, 4, 6);
        assertThat(threads).containsExactly(Thread.currentThread());
    }

    @Test
    void ofManyThatAskOnlySomeBeginByThemselves() throws Exception {
        CountDownLatch begun = new CountDownLatch(2);
        CountDownLatch enough = new CountDownLatch(1);
        List<Thread> asking = IntStream.range(0, 6)
                .mapToObj(number -> Thread.ofPlatform()
                        .name("asking-" + number)
                        .start(() -> pool.map(new Budget(Duration.ofMinutes(1)), List.of(1), _ -> {
                            if (Thread.currentThread().getName().startsWith("asking")) {
                                begun.countDown();
                                return awaited(enough);
                            }
                            return 0;
                        })))
                .toList();
        assertThat(begun.await(5, TimeUnit.SECONDS)).isTrue();
        assertThat(pool.map(
                        new Budget(Duration.ofMinutes(1)),
                        List.of(1),
                        _ -> Thread.currentThread().getName()))
                .first()
                .asString()
                .startsWith("search-");
        enough.countDown();
        for (Thread thread : asking) {
            thread.join(Duration.ofSeconds(5));
        }
        assertThat(asking).noneMatch(Thread::isAlive);
    }

    private static int awaited(CountDownLatch latch) {
        try {
            return latch.await(5, TimeUnit.SECONDS) ? 1 : 0;
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void whatIsLongIsSharedWithThePool() {
        Set<Thread> threads = ConcurrentHashMap.newKeySet();
        List<Integer> inputs = IntStream.range(0, 200).boxed().toList();
        List<Integer> doubled = pool.map(new Budget(Duration.ofMinutes(1)), inputs, number -> {
            threads.add(Thread.currentThread());
            LockSupport.parkNanos(1_000_000);
            return 2 * number;
        });
        assertThat(doubled).isEqualTo(inputs.stream().map(number -> 2 * number).toList());
        assertThat(threads)
                .extracting(Thread::getName)
                .contains(Thread.currentThread().getName(), "search-1", "search-2");
    }

    @Test
    void aFailureOfWhatTheAskingThreadDoesReachesIt() {
        assertThatThrownBy(() -> pool.map(new Budget(Duration.ofMinutes(1)), List.of(1), _ -> {
                    throw new IllegalStateException("a defect");
                }))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("a defect");
    }
}
