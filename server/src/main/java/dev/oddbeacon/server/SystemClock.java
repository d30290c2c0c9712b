package dev.oddbeacon.server;

import java.time.Clock;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The time of day. */
@Configuration
class SystemClock {
    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }
}
