package dev.oddbeacon.server.web;

import java.lang.reflect.Constructor;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.annotation.BindParam;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;

/**
 * Fills a record with the parameters of a request: texts, numbers, truth values, and lists of texts; what is absent is
 * null. Spring's own binding looks at all annotations of the record again for each request, which took longer than most
 * searches.
 */
public final class RecordParameters implements HandlerMethodArgumentResolver {
    /** A way to make a record; names of parameters in the order of its components. */
    private record Shape(Constructor<?> constructor, List<String> names, List<Class<?>> types) {
        static Shape of(Class<?> type) {
            try {
                RecordComponent[] components = type.getRecordComponents();
                Constructor<?> constructor = type.getDeclaredConstructor(
                        Arrays.stream(components).map(RecordComponent::getType).toArray(Class<?>[]::new));
                constructor.setAccessible(true);
                List<String> names = Arrays.stream(constructor.getParameters())
                        .map(parameter -> parameter.isAnnotationPresent(BindParam.class)
                                ? parameter.getAnnotation(BindParam.class).value()
                                : parameter.getName())
                        .toList();
                return new Shape(
                        constructor,
                        names,
                        Arrays.stream(components).<Class<?>>map(Shape::checked).toList());
            } catch (NoSuchMethodException e) {
                throw new IllegalStateException(e);
            }
        }

        private static Class<?> checked(RecordComponent component) {
            boolean isList = component.getGenericType() instanceof ParameterizedType list
                    && list.getRawType() == List.class
                    && list.getActualTypeArguments()[0] == String.class;
            if (!isList && !List.of(String.class, Integer.class, Boolean.class).contains(component.getType())) {
                throw new IllegalStateException(component + " is of no type that a parameter can have");
            }
            return component.getType();
        }
    }

    /** The values of a parameter by its name; null if it was not given. */
    @FunctionalInterface
    public interface Given {
        String[] values(String name);
    }

    private static final Map<Class<?>, Shape> SHAPES = new ConcurrentHashMap<>();

    /** The names of the parameters that a record takes. */
    public static List<String> names(Class<?> type) {
        return SHAPES.computeIfAbsent(type, Shape::of).names;
    }

    /** Fills a record. @throws BadRequestException if a value is of another type */
    public static <T> T fill(Class<T> type, Given given) {
        Shape shape = SHAPES.computeIfAbsent(type, Shape::of);
        Object[] values = new Object[shape.names.size()];
        for (int i = 0; i < values.length; i++) {
            String[] texts = given.values(shape.names.get(i));
            values[i] = texts == null ? null : value(shape.names.get(i), shape.types.get(i), texts);
        }
        try {
            return type.cast(shape.constructor.newInstance(values));
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType().isRecord() && parameter.hasParameterAnnotation(ParameterObject.class);
    }

    @Override
    public Object resolveArgument(
            MethodParameter parameter,
            ModelAndViewContainer container,
            NativeWebRequest request,
            WebDataBinderFactory factory) {
        return fill(parameter.getParameterType(), request::getParameterValues);
    }

    private static Object value(String name, Class<?> type, String[] given) {
        if (type == List.class) {
            return List.of(given);
        }
        String text = given[0];
        if (type == String.class) {
            return text;
        }
        if (text.isEmpty()) {
            return null;
        }
        if (type == Integer.class) {
            try {
                return Integer.valueOf(text);
            } catch (NumberFormatException e) {
                throw new BadRequestException(name + " is \"" + text + "\"; it must be a whole number.");
            }
        }
        return switch (text) {
            case "true" -> true;
            case "false" -> false;
            default -> throw new BadRequestException(name + " is \"" + text + "\"; it must be true or false.");
        };
    }
}
