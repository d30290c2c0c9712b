package dev.oddbeacon.server.load;

import java.util.concurrent.Callable;
import org.springdoc.api.AbstractOpenApiResource;
import org.springframework.boot.webmvc.autoconfigure.WebMvcRegistrations;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerAdapter;
import org.springframework.web.servlet.mvc.method.annotation.ServletInvocableHandlerMethod;

/**
 * Lets every method that answers requests run in {@link LongReads}, but for those that say where else. Parameters are
 * read, and answers written, by the virtual thread of the request: a slow caller holds nothing else.
 */
@Component
class Handlers implements WebMvcRegistrations {
    private final LongReads reads;

    Handlers(LongReads reads) {
        this.reads = reads;
    }

    @Override
    public RequestMappingHandlerAdapter getRequestMappingHandlerAdapter() {
        return new RequestMappingHandlerAdapter() {
            @Override
            protected ServletInvocableHandlerMethod createInvocableHandlerMethod(HandlerMethod method) {
                return new Bounded(method);
            }
        };
    }

    private final class Bounded extends ServletInvocableHandlerMethod {
        Bounded(HandlerMethod method) {
            super(method);
        }

        @Override
        protected Object doInvoke(Object... arguments) throws Exception {
            Callable<Object> work = () -> super.doInvoke(arguments);
            if (hasMethodAnnotation(SearchThreadsOnly.class)) {
                return work.call();
            }
            if (AbstractOpenApiResource.class.isAssignableFrom(getBeanType())) {
                return reads.callToTheEnd(work); // the first to ask waits until the interface is described
            }
            return hasMethodAnnotation(TakesItsTime.class)
                    ? reads.callAlone(getShortLogMessage(), work)
                    : reads.call(work);
        }
    }
}
