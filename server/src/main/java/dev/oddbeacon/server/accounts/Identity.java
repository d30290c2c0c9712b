package dev.oddbeacon.server.accounts;

import java.util.List;
import java.util.Optional;

/**
 * What an issuer says of a person.
 *
 * @param subject who it is among all people of all issuers
 * @param name that an account is made under; empty if the issuer tells none
 * @param groups empty if the issuer tells none at all: teams and role stay as administrators have set them
 */
public record Identity(String subject, String name, Optional<String> displayName, Optional<List<String>> groups) {}
