#include "channel.h"

/* Alarm limits as agreed with the classification society; do not change without a new survey. */
const struct channel channels[CHANNEL_COUNT] = {
    [CHANNEL_BATTERY_VOLTAGE] = { "battery-voltage", 6200, 7400, 1 },
    [CHANNEL_BATTERY_CURRENT] = { "battery-current", -1500, 1500, 1 },
    [CHANNEL_BATTERY_TEMP]    = { "battery-temp", 20, 450, 10 },
    [CHANNEL_BILGE_LEVEL]     = { "bilge-level", -10, 120, 5 },
    [CHANNEL_HULL_STRAIN]     = { "hull-strain", -900, 900, 2 },
    [CHANNEL_SHAFT_SPEED]     = { "shaft-speed", -900, 1800, 1 },
};

int channel_is_alarm(enum channel_id id, int16_t value)
{
    return value < channels[id].alarm_low || value > channels[id].alarm_high;
}
