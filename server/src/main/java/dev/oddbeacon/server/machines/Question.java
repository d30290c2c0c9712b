package dev.oddbeacon.server.machines;

import com.hazelcast.core.HazelcastInstance;
import com.hazelcast.core.HazelcastInstanceAware;
import java.io.Serial;
import java.io.Serializable;
import java.util.concurrent.Callable;

/** A {@link Request}, encrypted, on its way to another machine, where it is answered. */
final class Question implements Callable<byte[]>, HazelcastInstanceAware, Serializable {
    @Serial
    private static final long serialVersionUID = 1;

    private final byte[] encrypted;
    private transient Answering answering;

    Question(byte[] encrypted) {
        this.encrypted = encrypted;
    }

    @Override
    public void setHazelcastInstance(HazelcastInstance member) {
        answering = (Answering) member.getUserContext().get(Answering.class.getName());
    }

    @Override
    public byte[] call() {
        return answering.answer(encrypted);
    }
}
