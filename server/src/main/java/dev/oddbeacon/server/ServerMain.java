package dev.oddbeacon.server;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.springframework.beans.BeansException;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.event.ApplicationEnvironmentPreparedEvent;
import org.springframework.boot.context.logging.LoggingApplicationListener;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.context.ApplicationListener;
import org.springframework.core.Ordered;
import org.springframework.core.env.ConfigurableEnvironment;

/**
 * Starts the service. What would make it useless is found out before anything else starts, and said in one line on
 * standard error, exit status 3: an address that others could reach, a port that is taken, a MariaDB that does not
 * answer.
 */
@SpringBootApplication
@ConfigurationPropertiesScan
public class ServerMain {
    private static final int CANNOT_START = 3;
    private static final String INDEXING_ALONE = "--oddbeacon.duties=" + Duty.INDEXING.word();

    public static void main(String[] arguments) {
        SpringApplication application = application(List.of(arguments));
        application.addListeners(new Preparation());
        try {
            endWith(application.run(arguments).getEnvironment().getProperty("oddbeacon.parent", Long.class));
        } catch (BeansException e) {
            throw cannotStart(e).map(ServerMain::end).orElse(e);
        }
    }

    /** The service, or, if that is its only duty, a process that indexes and listens nowhere. */
    static SpringApplication application(List<String> arguments) {
        boolean indexesAlone = arguments.contains(INDEXING_ALONE);
        SpringApplication application = new SpringApplication(indexesAlone ? IndexingMain.class : ServerMain.class);
        application.setWebApplicationType(indexesAlone ? WebApplicationType.NONE : WebApplicationType.SERVLET);
        application.setKeepAlive(indexesAlone);
        return application;
    }

    private static Optional<CannotStartException> cannotStart(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof CannotStartException known) {
                return Optional.of(known);
            }
        }
        return Optional.empty();
    }

    private static RuntimeException end(CannotStartException e) {
        System.err.println("oddbeacon: " + e.getMessage());
        System.exit(CANNOT_START);
        return e;
    }

    /** Ends when the process that started this one does: nobody could stop it any more. */
    private static void endWith(Long parent) {
        if (parent != null) {
            ProcessHandle.of(parent)
                    .map(ProcessHandle::onExit)
                    .orElseGet(() -> CompletableFuture.completedFuture(null))
                    .thenRun(() -> System.exit(0));
        }
    }

    /** Reads the settings before the log begins, which has some of its own; the framework's have been read by then. */
    private static final class Preparation
            implements ApplicationListener<ApplicationEnvironmentPreparedEvent>, Ordered {
        @Override
        public void onApplicationEvent(ApplicationEnvironmentPreparedEvent event) {
            prepare(event.getEnvironment());
        }

        @Override
        public int getOrder() {
            return LoggingApplicationListener.DEFAULT_ORDER - 1;
        }
    }

    private static void prepare(ConfigurableEnvironment environment) {
        try {
            SettingsFile.addTo(environment);
            Settings settings = SettingsCheck.settings(environment);
            DerivedSettings.addTo(environment, settings);
            if (settings.duties().contains(Duty.SERVING)) {
                Surroundings.checkAddress(environment, settings);
            }
            Surroundings.waitForDatabase(settings.database());
        } catch (CannotStartException e) {
            end(e);
        }
    }
}
