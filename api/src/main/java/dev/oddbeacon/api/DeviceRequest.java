package dev.oddbeacon.api;

/**
 * A program that waits for somebody to allow it.
 *
 * @param program what it calls itself
 * @param token that it wants; null for one of the role of whoever allows it
 */
public record DeviceRequest(String userCode, String program, String address, NewToken token) {}
