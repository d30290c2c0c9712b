#include "frame.h"
#include "tinycrc/tinycrc.h"

static size_t put16(uint8_t *out, uint16_t value)
{
    out[0] = (uint8_t)(value >> 8);
    out[1] = (uint8_t)value;
    return 2;
}

size_t frame_pack(const struct sample *samples, size_t count, uint8_t out[FRAME_MAX])
{
    size_t length = 0;
    size_t i;

    out[length++] = FRAME_SYNC;
    out[length++] = (uint8_t)count;
    for (i = 0; i < count && length + 10 <= FRAME_MAX; i++) {
        length += put16(out + length, (uint16_t)(samples[i].when >> 16));
        length += put16(out + length, (uint16_t)samples[i].when);
        length += put16(out + length, samples[i].channel);
        length += put16(out + length, (uint16_t)samples[i].value);
    }
    length += put16(out + length, tinycrc16(out, length));
    return length;
}
