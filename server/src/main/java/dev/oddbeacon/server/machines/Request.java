package dev.oddbeacon.server.machines;

import java.util.Map;

/**
 * A request of the HTTP interface that another machine is to answer, to the same caller.
 *
 * @param id of this request alone, which its answer is encrypted for
 * @param form its parameters, encoded
 * @param headers that tell who asks, and for what
 * @param caller the address that it came from
 * @param isSecure whether it came over TLS
 */
record Request(String id, String path, String form, Map<String, String> headers, String caller, boolean isSecure) {
    /** An answer. @param headers those that matter to the caller */
    record Answer(int status, Map<String, String> headers, String body) {}

    /** What a request is encrypted for: no other machine can be given it. */
    static String purpose(long machine) {
        return "question to machine " + machine;
    }

    /** What its answer is encrypted for. */
    static String answerPurpose(String id) {
        return "answer to " + id;
    }
}
