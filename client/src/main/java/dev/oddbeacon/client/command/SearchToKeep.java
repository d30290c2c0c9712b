package dev.oddbeacon.client.command;

import dev.oddbeacon.client.service.Service;

/** A command that searches, as far as its search can be kept under a name. */
interface SearchToKeep {
    /** The parameters of its search, without those that only say how to answer. */
    Service.Parameters toKeep();
}
