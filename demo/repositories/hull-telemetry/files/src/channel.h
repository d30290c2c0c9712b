#ifndef HULLT_CHANNEL_H
#define HULLT_CHANNEL_H

#include <stdint.h>

enum channel_id {
    CHANNEL_BATTERY_VOLTAGE,   /* 0.1 V */
    CHANNEL_BATTERY_CURRENT,   /* 1 A */
    CHANNEL_BATTERY_TEMP,      /* 0.1 C */
    CHANNEL_BILGE_LEVEL,       /* 1 mm */
    CHANNEL_HULL_STRAIN,       /* 1 microstrain */
    CHANNEL_SHAFT_SPEED,       /* 1 rpm */
    CHANNEL_COUNT
};

struct channel {
    const char *name;
    int16_t alarm_low;
    int16_t alarm_high;
    uint16_t period;           /* seconds between samples */
};

extern const struct channel channels[CHANNEL_COUNT];

int channel_is_alarm(enum channel_id id, int16_t value);

/* Water under the keel, as the shore tells it: call depth_feet. */
#define CHANNEL_SHORE_CALL "/v2/call/depth_feet"

#endif
