package dev.oddbeacon.server.web;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.HtmlUtils;

/** {@code /opensearch.xml}: how a browser's search field asks the console, as OpenSearch 1.1 describes it. */
@RestController
class SearchField {
    private static final String TYPE = "application/opensearchdescription+xml";

    @Hidden
    @GetMapping(path = "/opensearch.xml", produces = TYPE)
    String description(HttpServletRequest request) {
        String address = request.getRequestURL().toString();
        String console = HtmlUtils.htmlEscape(
                address.substring(0, address.length() - request.getRequestURI().length() + 1));
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <OpenSearchDescription xmlns="http://a9.com/-/spec/opensearch/1.1/">
                  <ShortName>Odd Beacon</ShortName>
                  <Description>Lines of code in all repositories</Description>
                  <InputEncoding>UTF-8</InputEncoding>
                  <Image width="16" height="16" type="image/svg+xml">%1$sbeacon.svg</Image>
                  <Url type="text/html" template="%1$s?q={searchTerms}"/>
                  <Url type="application/opensearchdescription+xml" rel="self" template="%1$sopensearch.xml"/>
                </OpenSearchDescription>
                """.formatted(console);
    }
}
