package dev.oddbeacon.client.output.hits;

import dev.oddbeacon.api.LinesAnswer.FileHits;

/** Prints hits, file by file. */
public interface HitPrinter {
    void print(FileHits file);
}
