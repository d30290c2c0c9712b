#include <stdio.h>
#include <string.h>
#include "channel.h"
#include "ring.h"
#include "uplink.h"

static struct ring ring;

static int write_stdout(const uint8_t *data, size_t length)
{
    return fwrite(data, 1, length, stdout) == length ? 0 : -1;
}

int main(int argc, char **argv)
{
    struct uplink link = { write_stdout, 0, 0 };
    uint32_t second;

    if (argc > 2 && strcmp(argv[1], "--config") == 0)
        fprintf(stderr, "hullt: reading %s\n", argv[2]);
    ring_init(&ring);
    for (second = 0; second < 60; second++) {
        for (int id = 0; id < CHANNEL_COUNT; id++) {
            struct sample sample = { second, (uint16_t)id, 0 };

            if (second % channels[id].period == 0 && !ring_push(&ring, sample))
                fprintf(stderr, "hullt: ring buffer full, sample dropped\n");
        }
        uplink_send(&link, &ring);
    }
    return 0;
}
