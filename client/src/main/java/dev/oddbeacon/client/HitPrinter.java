package dev.oddbeacon.client;

import dev.oddbeacon.api.LinesAnswer.FileHits;

/** Prints hits, file by file. */
interface HitPrinter {
    void print(FileHits file);
}
