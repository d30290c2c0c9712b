package dev.oddbeacon.client.browse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.client.browse.BrowseKeys.Act;
import dev.oddbeacon.client.options.ClientSettings;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.Properties;
import org.jline.keymap.KeyMap;
import org.jline.terminal.Terminal;
import org.jline.terminal.impl.ExternalTerminal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BrowseKeysTest {
    private static BrowseKeys keys(String... settings) {
        Properties values = new Properties();
        values.setProperty("editor", "my-editor"); // says nothing of keys
        for (int i = 0; i < settings.length; i += 2) {
            values.setProperty(settings[i], settings[i + 1]);
        }
        return BrowseKeys.of(new ClientSettings(Path.of("client.properties"), values));
    }

    private static KeyMap<Act> map(BrowseKeys keys) throws IOException {
        try (Terminal terminal = new ExternalTerminal(
                "tests", "xterm", InputStream.nullInputStream(), OutputStream.nullOutputStream(), null)) {
            return keys.map(terminal);
        }
    }

    @Test
    void areTheUsualOnesUnlessSomethingIsKept() throws IOException {
        KeyMap<Act> map = map(keys());
        assertThat(map.getBound(KeyMap.ctrl('R'))).isEqualTo(Act.READING);
        assertThat(map.getBound("\t")).isEqualTo(Act.SUBJECT);
        assertThat(map.getBound("\r")).isEqualTo(Act.TAKE);
        assertThat(map.getBound(KeyMap.ctrl('C'))).isEqualTo(Act.LEAVE);
        assertThat(map.getBound(KeyMap.ctrl('P'))).isEqualTo(Act.UP);
        assertThat(map.getBound("a")).isEqualTo(Act.TYPE);
    }

    @Test
    void areSetOneByOne() throws IOException {
        BrowseKeys keys =
                keys("browse.key.reading", "alt-r", "browse.key.choose", " Ctrl-R , f2", "browse.key.editor", "ctrl-p");
        KeyMap<Act> map = map(keys);
        assertThat(map.getBound(KeyMap.alt('r'))).isEqualTo(Act.READING);
        assertThat(map.getBound(KeyMap.ctrl('R'))).isEqualTo(Act.CHOOSE);
        assertThat(map.getBound("\033OQ")).isEqualTo(Act.CHOOSE);
        assertThat(map.getBound(KeyMap.ctrl('X'))).isNull();
        assertThat(map.getBound(KeyMap.ctrl('P')))
                .as("no second way up any more")
                .isEqualTo(Act.EDITOR);
        assertThat(map.getBound(KeyMap.ctrl('T'))).isEqualTo(Act.CASE);
        assertThat(keys.of(Act.CHOOSE)).containsExactly("ctrl-r", "f2");
    }

    @ParameterizedTest
    @CsvSource({
        "browse.key.reading, r, A key is ctrl-g",
        "browse.key.reading, ctrl-1, A key is ctrl-g",
        "browse.key.reading, f13, A key is ctrl-g",
        "browse.key.reading, '', A key is ctrl-g",
        "browse.key.read, ctrl-g, browse.key.read is no key of browse. There are browse.key.clear",
        "browse.key.left, ctrl-g, is no key of browse",
        "browse.key.reading, ctrl-x, ctrl-x would be the key of reading and of choose",
        "browse.key.case, ctrl-i, would be the key of subject and of case",
        "browse.key.case, ctrl-m, would be the key of case and of take",
    })
    void areRefusedWhereTheySayNothingOrTwoThings(String name, String key, String why) {
        assertThatThrownBy(() -> keys(name, key))
                .isInstanceOf(ServiceProblem.class)
                .hasMessageContaining("client.properties: ")
                .hasMessageContaining(why);
    }
}
