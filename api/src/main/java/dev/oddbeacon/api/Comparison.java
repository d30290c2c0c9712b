package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * What a saved search finds now, beside what it found before: {@code GET /api/v1/saved-searches/{name}/comparison}. A
 * result is the same one although lines move, its file is renamed, or a part of its line is edited.
 *
 * @param with the earlier check, or the day, that it is compared with; null for nothing: all that is found has come
 * @param at when that was
 * @param found how many there are now
 * @param came those that were not there, at most a thousand
 * @param cameCount how many there are
 * @param went those that are not there any more, at most a thousand; null for a day, as nobody knows them
 * @param wentCount how many there are
 * @param complete whether all repositories of the scope are indexed
 */
public record Comparison(
        String with,
        Instant at,
        int found,
        List<Result> came,
        int cameCount,
        List<Result> went,
        int wentCount,
        boolean complete) {}
