#include "ring.h"

#define MASK (RING_CAPACITY - 1u)

void ring_init(struct ring *ring)
{
    ring->head = 0;
    ring->tail = 0;
}

/* Returns 0 if there is no room: the oldest samples are worth more than the newest,
 * they show what led to the trouble. */
int ring_push(struct ring *ring, struct sample sample)
{
    uint32_t head = ring->head;

    if (head - ring->tail == RING_CAPACITY)
        return 0;
    ring->slots[head & MASK] = sample;
    ring->head = head + 1;
    return 1;
}

int ring_pop(struct ring *ring, struct sample *sample)
{
    uint32_t tail = ring->tail;

    if (tail == ring->head)
        return 0;
    *sample = ring->slots[tail & MASK];
    ring->tail = tail + 1;
    return 1;
}

size_t ring_count(const struct ring *ring)
{
    return ring->head - ring->tail;
}
