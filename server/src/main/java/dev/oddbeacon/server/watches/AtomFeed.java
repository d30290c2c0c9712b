package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.Watch.Notice;
import java.io.StringWriter;
import java.time.Instant;
import java.util.List;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.springframework.web.util.UriComponentsBuilder;

/** Notices as an Atom feed, RFC 4287: an entry for each, with the lines that came and where they are in the console. */
final class AtomFeed {
    static final String TYPE = "application/atom+xml";
    private static final String NAMESPACE = "http://www.w3.org/2005/Atom";

    private final XMLStreamWriter out;
    private final String console;

    private AtomFeed(XMLStreamWriter out, String console) {
        this.out = out;
        this.console = console;
    }

    /** @param own the address of the feed @param console the address of the console */
    static String write(Watches.OfFeed feed, String own, String console) {
        StringWriter text = new StringWriter();
        try {
            XMLStreamWriter out = XMLOutputFactory.newFactory().createXMLStreamWriter(text);
            new AtomFeed(out, console).feed(feed, own);
            out.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e); // nothing that it writes to can fail
        }
        return text.toString();
    }

    private void feed(Watches.OfFeed feed, String own) throws XMLStreamException {
        String id = "urn:oddbeacon:search:" + feed.search().id();
        out.writeStartDocument("UTF-8", "1.0");
        out.writeStartElement("feed");
        out.writeDefaultNamespace(NAMESPACE);
        element("id", id);
        element("title", feed.search().name());
        element(
                "updated",
                (feed.notices().isEmpty()
                                ? Instant.EPOCH
                                : feed.notices().getFirst().happened())
                        .toString());
        link("self", own);
        link("alternate", console + "/");
        out.writeStartElement("author");
        element("name", "Odd Beacon");
        out.writeEndElement();
        for (Notice notice : feed.notices()) {
            entry(id, notice);
        }
        out.writeEndElement();
        out.writeEndDocument();
    }

    private void entry(String of, Notice notice) throws XMLStreamException {
        out.writeStartElement("entry");
        element("id", of + ":notice:" + notice.id());
        element("title", title(notice));
        element("updated", notice.happened().toString());
        List<Result> shown = notice.came().isEmpty() ? notice.went() : notice.came();
        link("alternate", shown.isEmpty() ? console + "/" : place(shown.getFirst()));
        out.writeStartElement("content");
        out.writeAttribute("type", "xhtml");
        out.writeStartElement("div");
        out.writeDefaultNamespace("http://www.w3.org/1999/xhtml");
        results("Came", notice.came());
        results("Went", notice.went());
        out.writeEndElement();
        out.writeEndElement();
        out.writeEndElement();
    }

    private static String title(Notice notice) {
        String came = notice.cameCount() == 0 ? "" : notice.cameCount() + " new";
        String went = notice.wentCount() == 0 ? "" : notice.wentCount() + " gone";
        return came + (came.isEmpty() || went.isEmpty() ? "" : ", ") + went + " in " + notice.repository();
    }

    private void results(String heading, List<Result> results) throws XMLStreamException {
        if (results.isEmpty()) {
            return;
        }
        out.writeStartElement("p");
        out.writeCharacters(heading);
        out.writeEndElement();
        out.writeStartElement("ul");
        for (Result result : results) {
            out.writeStartElement("li");
            out.writeStartElement("a");
            out.writeAttribute("href", place(result));
            out.writeCharacters(clean(name(result)));
            out.writeEndElement();
            if (result.text() != null) {
                out.writeCharacters(" ");
                out.writeStartElement("code");
                out.writeCharacters(clean(result.text().strip()));
                out.writeEndElement();
            }
            out.writeEndElement();
        }
        out.writeEndElement();
    }

    private static String name(Result result) {
        return result.path() == null
                ? result.repository() + " " + result.commit().substring(0, 10)
                : result.repository() + "/" + result.path() + (result.line() == null ? "" : ":" + result.line());
    }

    /** Where a result is in the console: at the commit at which it was found. */
    private String place(Result result) {
        UriComponentsBuilder address = UriComponentsBuilder.fromUriString(console);
        if (result.path() == null) {
            return address.path("/commit")
                    .queryParam("in", "{repository}")
                    .queryParam("id", "{id}")
                    .encode()
                    .buildAndExpand(result.repository(), result.commit())
                    .toUriString();
        }
        return address.path("/file")
                .queryParam("in", "{repository}")
                .queryParam("path", "{path}")
                .queryParam("rev", "{commit}")
                .queryParam("line", "{line}")
                .encode()
                .buildAndExpand(
                        result.repository(), result.path(), result.commit(), result.line() == null ? 1 : result.line())
                .toUriString();
    }

    private void element(String name, String text) throws XMLStreamException {
        out.writeStartElement(name);
        out.writeCharacters(clean(text));
        out.writeEndElement();
    }

    private void link(String rel, String address) throws XMLStreamException {
        out.writeEmptyElement("link");
        out.writeAttribute("rel", rel);
        out.writeAttribute("href", address);
    }

    /** Without the characters that XML cannot hold. */
    private static String clean(String text) {
        StringBuilder clean = new StringBuilder();
        text.codePoints().forEach(code -> {
            boolean isAllowed = code == '\t'
                    || code == '\n'
                    || code >= 0x20 && code <= 0xD7FF
                    || code >= 0xE000 && code <= 0xFFFD
                    || code >= 0x10000;
            clean.appendCodePoint(isAllowed ? code : 0xFFFD);
        });
        return clean.toString();
    }
}
