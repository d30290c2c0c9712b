#ifndef HULLT_UPLINK_H
#define HULLT_UPLINK_H

#include "ring.h"

struct uplink {
    int (*write)(const uint8_t *data, size_t length);
    unsigned backoff;
    unsigned wait;
};

int uplink_send(struct uplink *link, struct ring *ring);

#endif
