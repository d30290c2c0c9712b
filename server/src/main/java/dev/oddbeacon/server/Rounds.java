package dev.oddbeacon.server;

import java.time.Duration;

/** Does something again and again, after a pause each time, on a thread of its own. What it does must not throw. */
public final class Rounds {
    private final String name;
    private final Duration pause;
    private final Runnable round;
    private volatile boolean running;
    private Thread thread = Thread.ofVirtual().unstarted(() -> {});

    /** @param name of the thread */
    public Rounds(String name, Duration pause, Runnable round) {
        this.name = name;
        this.pause = pause;
        this.round = round;
    }

    public void start() {
        running = true;
        thread = Thread.ofVirtual().name(name).start(this::run);
    }

    private void run() {
        try {
            while (running) {
                Thread.sleep(pause);
                if (running) {
                    round.run();
                }
            }
        } catch (InterruptedException e) {
            // it is stopped
        }
    }

    /** Ends what is being done, and waits for that. */
    public void stop() {
        running = false;
        thread.interrupt();
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    public boolean isRunning() {
        return running;
    }
}
