package dev.oddbeacon.server.web;

import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The console: one page whatever the path, as its router reads it, unknown ones too; built files never change under one name. */
@Controller
class ConsolePages {
    @GetMapping({"/{page:[a-z-]+}", "/file/**"})
    String page() {
        return "forward:/index.html";
    }

    @Configuration
    static class Assets implements WebMvcConfigurer {
        @Override
        public void addResourceHandlers(ResourceHandlerRegistry registry) {
            registry.addResourceHandler("/assets/**")
                    .addResourceLocations("classpath:/static/assets/")
                    .setCacheControl(org.springframework.http.CacheControl.maxAge(java.time.Duration.ofDays(365))
                            .immutable());
        }
    }
}
