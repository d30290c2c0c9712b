package dev.oddbeacon.api;

/** A program that waits for somebody to allow it. @param program what it calls itself */
public record DeviceRequest(String userCode, String program, String address) {}
