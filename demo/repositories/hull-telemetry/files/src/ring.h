#ifndef HULLT_RING_H
#define HULLT_RING_H

#include <stddef.h>
#include <stdint.h>

/* A ring buffer of samples. One writer, one reader; the capacity is a power of two. */
struct sample {
    uint32_t when;     /* seconds since power-on */
    uint16_t channel;
    int16_t value;     /* raw, see channel.h for the scale */
};

#define RING_CAPACITY 1024u

struct ring {
    volatile uint32_t head;
    volatile uint32_t tail;
    struct sample slots[RING_CAPACITY];
};

void ring_init(struct ring *ring);
int ring_push(struct ring *ring, struct sample sample);
int ring_pop(struct ring *ring, struct sample *sample);
size_t ring_count(const struct ring *ring);

#endif
