/* tinycrc 1.1 - vendored, do not edit. Public domain. */
#ifndef TINYCRC_H
#define TINYCRC_H
#include <stddef.h>
#include <stdint.h>
uint16_t tinycrc16(const uint8_t *data, size_t length);
#endif
