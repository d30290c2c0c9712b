package dev.oddbeacon.server.records;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** A message to a webhook or by mail, about notices from the first to the last. */
@Entity
@Table(name = "delivery")
public class DeliveryRecord {
    public static final String WEBHOOK = "webhook";
    public static final String MAIL = "mail";
    public static final String WAITING = "waiting";
    public static final String SENT = "sent";
    public static final String FAILED = "failed";

    private static final int LONGEST = 500;

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private long watchId;

    @Column(columnDefinition = "varchar(8)")
    private String channel;

    @Column(columnDefinition = "varchar(64)")
    private String message;

    private long firstNotice;
    private long lastNotice;
    private Instant made;
    private int attempts;
    private Instant nextAttempt;

    @Column(columnDefinition = "varchar(8)")
    private String state = WAITING;

    private String answer = "";

    protected DeliveryRecord() {}

    /** @param channel {@link #WEBHOOK} or {@link #MAIL} */
    public DeliveryRecord(
            long watchId, String channel, String message, long firstNotice, long lastNotice, Instant made) {
        this.watchId = watchId;
        this.channel = channel;
        this.message = message;
        this.firstNotice = firstNotice;
        this.lastNotice = lastNotice;
        this.made = made.truncatedTo(ChronoUnit.MICROS);
        this.nextAttempt = this.made;
    }

    public long id() {
        return id;
    }

    public long watchId() {
        return watchId;
    }

    public String channel() {
        return channel;
    }

    /** The id of the message, the same at each attempt. */
    public String message() {
        return message;
    }

    public long firstNotice() {
        return firstNotice;
    }

    public long lastNotice() {
        return lastNotice;
    }

    public Instant made() {
        return made;
    }

    public int attempts() {
        return attempts;
    }

    /** Empty if there is none any more. */
    public Optional<Instant> nextAttempt() {
        return Optional.ofNullable(nextAttempt);
    }

    public String state() {
        return state;
    }

    /** What became of the last attempt. */
    public String answer() {
        return answer;
    }

    /** @param next empty for no more attempt */
    public void tried(String newState, String newAnswer, Optional<Instant> next) {
        attempts++;
        state = newState;
        answer = newAnswer.substring(0, Math.min(LONGEST, newAnswer.length()));
        nextAttempt = next.map(when -> when.truncatedTo(ChronoUnit.MICROS)).orElse(null);
    }

    /** Somebody wants it sent again. */
    public void again(Instant now) {
        state = WAITING;
        attempts = 0;
        nextAttempt = now.truncatedTo(ChronoUnit.MICROS);
    }
}
