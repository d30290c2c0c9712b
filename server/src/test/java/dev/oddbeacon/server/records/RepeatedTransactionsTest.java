package dev.oddbeacon.server.records;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.server.Database;
import java.util.List;
import java.util.concurrent.BrokenBarrierException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.jdbc.support.JdbcTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

class RepeatedTransactionsTest {
    private final AtomicInteger times = new AtomicInteger();
    private JdbcTemplate database;
    private JdbcTransactionManager transactions;

    @BeforeEach
    void connect() {
        List<String> arguments = Database.shared().create();
        DriverManagerDataSource source = new DriverManagerDataSource(
                value(arguments, "url"), value(arguments, "user"), value(arguments, "password"));
        database = new JdbcTemplate(source);
        transactions = new JdbcTransactionManager(source);
        database.update("create table berth (id int primary key, boats int not null)");
        database.update("insert into berth values (1, 0), (2, 0)");
    }

    private static String value(List<String> arguments, String name) {
        String begin = "--oddbeacon.database." + name + "=";
        return arguments.stream()
                .filter(argument -> argument.startsWith(begin))
                .findFirst()
                .orElseThrow()
                .substring(begin.length());
    }

    private void add(int berth) {
        database.update("update berth set boats = boats + 1 where id = ?", berth);
    }

    /** Changes two rows; another, which changes them the other way round, has changed one of them before it goes on. */
    private void change(TransactionTemplate template, int first, int second, CyclicBarrier bothBegan) {
        AtomicInteger time = new AtomicInteger();
        template.executeWithoutResult(_ -> {
            times.incrementAndGet();
            add(first);
            if (time.incrementAndGet() == 1) {
                try {
                    bothBegan.await();
                } catch (InterruptedException | BrokenBarrierException e) {
                    throw new IllegalStateException(e);
                }
            }
            add(second);
        });
    }

    private List<Throwable> both(TransactionTemplate template) throws InterruptedException {
        CyclicBarrier bothBegan = new CyclicBarrier(2);
        List<Throwable> failures = new CopyOnWriteArrayList<>();
        Thread other = Thread.ofPlatform()
                .uncaughtExceptionHandler((_, e) -> failures.add(e))
                .start(() -> change(template, 2, 1, bothBegan));
        try {
            change(template, 1, 2, bothBegan);
        } catch (DataAccessException e) {
            failures.add(e);
        }
        other.join();
        return failures;
    }

    @Test
    void twoThatWaitForEachOtherBothComeThrough() throws InterruptedException {
        assertThat(both(new TransactionTemplate(transactions)))
                .as("what they are for")
                .hasSize(1);
        times.set(0);
        assertThat(both(new RepeatedTransactions(transactions))).isEmpty();
        assertThat(times).hasValue(3);
        assertThat(database.queryForList("select boats from berth order by id", Integer.class))
                .containsExactly(3, 3);
    }

    @Test
    void whatFailsOtherwiseFailsAtOnce() {
        assertThatThrownBy(() -> new RepeatedTransactions(transactions).executeWithoutResult(_ -> {
                    times.incrementAndGet();
                    database.update("insert into berth values (1, 7)");
                }))
                .isInstanceOf(DuplicateKeyException.class);
        assertThat(times).hasValue(1);
    }
}
