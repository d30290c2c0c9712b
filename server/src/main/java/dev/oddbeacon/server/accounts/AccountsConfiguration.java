package dev.oddbeacon.server.accounts;

import org.springframework.context.annotation.Configuration;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Sessions that ended are removed now and then. */
@Configuration
@EnableScheduling
class AccountsConfiguration {}
