package dev.oddbeacon.api;

/** Allows a program to sign in, or refuses it. @param allow null to ask only what the program calls itself */
public record DeviceDecision(String userCode, Boolean allow) {}
