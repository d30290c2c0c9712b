#include "uplink.h"
#include "frame.h"

#define BACKOFF_FIRST 2u
#define BACKOFF_LAST 300u

/* The link is lost behind Skerry Lodge every single time. Waiting doubles up to five minutes. */
static unsigned next_backoff(unsigned seconds)
{
    return seconds * 2 > BACKOFF_LAST ? BACKOFF_LAST : seconds * 2;
}

int uplink_send(struct uplink *link, struct ring *ring)
{
    struct sample samples[6];
    uint8_t frame[FRAME_MAX];
    size_t count = 0;

    if (link->wait > 0) {
        link->wait--;
        return 0;
    }
    while (count < 6 && ring_pop(ring, &samples[count]))
        count++;
    if (count == 0)
        return 0;
    if (link->write(frame, frame_pack(samples, count, frame)) < 0) {
        link->backoff = link->backoff ? next_backoff(link->backoff) : BACKOFF_FIRST;
        link->wait = link->backoff;
        return -1;
    }
    link->backoff = 0;
    return (int)count;
}
