package dev.oddbeacon.client.output;

import dev.oddbeacon.api.Result;

/** A result of any subject on one line, as it is told what came and what went. */
public final class ResultText {

    private ResultText() {}

    public static void print(Terminal terminal, String sign, Result result) {
        String place = result.path() == null
                ? result.repository() + " " + Terminal.shortened(result.commit())
                : result.repository() + "/" + result.path() + (result.line() == null ? "" : ":" + result.line());
        terminal.line(sign
                + terminal.styled(Terminal.Style.PATH, Terminal.clean(place))
                + (result.text() == null
                        ? ""
                        : ": " + Terminal.clean(result.text().strip())));
    }
}
