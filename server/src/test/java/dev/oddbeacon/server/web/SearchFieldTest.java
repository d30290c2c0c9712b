package dev.oddbeacon.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestService;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/** The browser's search field. */
class SearchFieldTest {
    @Test
    void isDescribedToWhoeverIsThere(@TempDir Path folder) throws Exception {
        try (TestService service = TestService.start(Database.shared().create(), folder, "--oddbeacon.accounts=true")) {
            TestService.Answer answer = service.get("/opensearch.xml");
            assertThat(answer.status()).isEqualTo(200);
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            Document xml = factory.newDocumentBuilder()
                    .parse(new ByteArrayInputStream(answer.body().getBytes(StandardCharsets.UTF_8)));
            String space = "http://a9.com/-/spec/opensearch/1.1/";
            assertThat(xml.getDocumentElement().getNamespaceURI()).isEqualTo(space);
            assertThat(xml.getElementsByTagNameNS(space, "ShortName").item(0).getTextContent())
                    .hasSizeLessThanOrEqualTo(16);
            Element url = (Element) xml.getElementsByTagNameNS(space, "Url").item(0);
            assertThat(url.getAttribute("template")).isEqualTo(service.address() + "/?q={searchTerms}");
        }
    }
}
