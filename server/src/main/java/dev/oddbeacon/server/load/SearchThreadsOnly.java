package dev.oddbeacon.server.load;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * A request that leaves all computing to the threads of searches, and only waits for them. Every other request is
 * computed by {@link LongReads}.
 */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
public @interface SearchThreadsOnly {}
