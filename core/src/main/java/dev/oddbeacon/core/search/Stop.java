package dev.oddbeacon.core.search;

/** Why a search ended before it had seen everything. */
public enum Stop {
    TIME,
    MEMORY,
    CANCELLED
}
