package dev.oddbeacon.core.meaning;

import java.util.Optional;

/** A type parameter, with the type that it is bound by. */
record TypeVariable(String name, Optional<TypeName> bound) {}
