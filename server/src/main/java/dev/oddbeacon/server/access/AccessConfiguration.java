package dev.oddbeacon.server.access;

import dev.oddbeacon.api.ScopePart;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.QueryParameter;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.List;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Parameters that all controllers share: who asks, and in which scope. */
@Configuration
class AccessConfiguration implements WebMvcConfigurer {
    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Caller.class, ScopeParameters.class);
    }

    /** The parts of a scope in the OpenAPI document, from their table. */
    @Bean
    OperationCustomizer scopeParameters() {
        return (operation, method) -> {
            boolean takesScope = Arrays.stream(method.getMethodParameters())
                    .anyMatch(parameter -> parameter.getParameterType() == ScopeParameters.class);
            for (ScopePart part : takesScope ? ScopePart.values() : new ScopePart[0]) {
                operation.addParametersItem(new QueryParameter()
                        .name(part.parameter())
                        .description(part.description())
                        .required(false)
                        .schema(new ArraySchema().items(new StringSchema())));
            }
            return operation;
        };
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new CallerArgument());
        resolvers.add(new ScopeArgument());
    }

    private static final class CallerArgument implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Caller.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory factory) {
            return CallerFilter.of(request.getNativeRequest(HttpServletRequest.class));
        }
    }

    private static final class ScopeArgument implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == ScopeParameters.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory factory) {
            return ScopeParameters.of(request::getParameterValues);
        }
    }
}
