#ifndef HULLT_FRAME_H
#define HULLT_FRAME_H

#include "ring.h"

#define FRAME_SYNC 0x7E
#define FRAME_MAX 64

/* Packs samples into a frame: sync, count, samples, crc. Returns its length. */
size_t frame_pack(const struct sample *samples, size_t count, uint8_t out[FRAME_MAX]);

#endif
