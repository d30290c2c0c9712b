/* tinycrc 1.1 - vendored, do not edit. Public domain. */
#include "tinycrc.h"
uint16_t tinycrc16(const uint8_t *data, size_t length)
{
	uint16_t crc = 0xFFFF;
	while (length--) {
		crc ^= (uint16_t)(*data++ << 8);
		for (int bit = 0; bit < 8; bit++)
			crc = crc & 0x8000 ? (uint16_t)(crc << 1 ^ 0x1021) : (uint16_t)(crc << 1);
	}
	return crc;
}
