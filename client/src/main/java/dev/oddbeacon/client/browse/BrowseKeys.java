package dev.oddbeacon.client.browse;

import dev.oddbeacon.client.options.ClientSettings;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jline.keymap.KeyMap;
import org.jline.terminal.Terminal;
import org.jline.utils.InfoCmp.Capability;

/**
 * The keys of the reader in the terminal: the usual ones, or those that a person keeps as {@code browse.key.NAME =
 * ctrl-g}. Arrows, page keys and what is typed stay as they are.
 */
final class BrowseKeys {
    private static final String SETTING = "browse.key.";
    private static final int ESCAPE_MILLIS = 60;
    private static final int FUNCTION_KEYS = 12;

    /** What a key does. */
    enum Act {
        TYPE,
        BACKSPACE,
        CLEAR("ctrl-u"),
        LEFT,
        RIGHT,
        UP,
        DOWN,
        PAGE_UP,
        PAGE_DOWN,
        FILE_UP,
        FILE_DOWN,
        CODE_UP,
        CODE_DOWN,
        SUBJECT("tab"),
        READING("ctrl-r"),
        CASE("ctrl-t"),
        WORD("ctrl-w"),
        SCOPE("ctrl-s"),
        CHOOSE("ctrl-x"),
        EDITOR("ctrl-o"),
        TAKE("enter"),
        LEAVE("esc", "ctrl-c");

        /** None of what cannot be set. */
        final List<String> usual;

        Act(String... usual) {
            this.usual = List.of(usual);
        }

        String printed() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private final Map<Act, List<String>> keys;

    private BrowseKeys(Map<Act, List<String>> keys) {
        this.keys = keys;
    }

    /**
     * The keys that a person keeps.
     *
     * @throws ServiceProblem if they say what is no key, or give one to two
     */
    static BrowseKeys of(ClientSettings settings) {
        Map<Act, List<String>> keys = new EnumMap<>(Act.class);
        for (Act act : Act.values()) {
            keys.put(act, act.usual);
        }
        for (String name : new TreeMap<>(settings.values())
                .keySet().stream()
                        .map(String::valueOf)
                        .filter(one -> one.startsWith(SETTING))
                        .toList()) {
            Act act = act(name.substring(SETTING.length()))
                    .orElseThrow(() -> wrong(settings, name + " is no key of browse. There are " + settable() + "."));
            List<String> given = new ArrayList<>();
            for (String key : settings.values().getProperty(name).split(",")) {
                String one = key.strip().toLowerCase(Locale.ROOT);
                if (!one.matches("ctrl-[a-z]|alt-[a-z]|f[1-9]|f1[0-2]|tab|enter|esc")) {
                    throw wrong(
                            settings,
                            name + " is \"" + key.strip() + "\". A key is ctrl-g, alt-g, f2, tab, enter or esc.");
                }
                given.add(one);
            }
            keys.put(act, given);
        }
        Map<String, Act> taken = new HashMap<>();
        keys.forEach((act, all) -> all.forEach(key -> {
            Act other = taken.put(sent(key), act);
            if (other != null) {
                throw wrong(
                        settings,
                        key + " would be the key of " + other.printed() + " and of " + act.printed()
                                + ". Give one of them another.");
            }
        }));
        return new BrowseKeys(keys);
    }

    private static Optional<Act> act(String name) {
        for (Act act : Act.values()) {
            if (act.printed().equals(name) && !act.usual.isEmpty()) {
                return Optional.of(act);
            }
        }
        return Optional.empty();
    }

    /** What a terminal sends alike is one key. */
    private static String sent(String key) {
        return switch (key) {
            case "ctrl-i" -> "tab";
            case "ctrl-m", "ctrl-j" -> "enter";
            default -> key;
        };
    }

    private static String settable() {
        List<String> names = new ArrayList<>();
        for (Act act : Act.values()) {
            if (!act.usual.isEmpty()) {
                names.add(SETTING + act.printed());
            }
        }
        return String.join(", ", names);
    }

    private static ServiceProblem wrong(ClientSettings settings, String what) {
        return new ServiceProblem(settings.file() + ": " + what, ExitStatus.WRONG);
    }

    /** The keys of an action, as they are written in settings. */
    List<String> of(Act act) {
        return keys.get(act);
    }

    KeyMap<Act> map(Terminal terminal) {
        KeyMap<Act> map = new KeyMap<>();
        map.setUnicode(Act.TYPE);
        map.setAmbiguousTimeout(ESCAPE_MILLIS);
        for (char c = ' '; c < 0x7F; c++) {
            map.bind(Act.TYPE, String.valueOf(c));
        }
        map.bind(Act.BACKSPACE, KeyMap.del());
        map.bind(Act.LEFT, KeyMap.key(terminal, Capability.key_left), "\033[D");
        map.bind(Act.RIGHT, KeyMap.key(terminal, Capability.key_right), "\033[C");
        map.bind(Act.UP, KeyMap.key(terminal, Capability.key_up), "\033[A");
        map.bind(Act.DOWN, KeyMap.key(terminal, Capability.key_down), "\033[B");
        map.bind(Act.PAGE_UP, KeyMap.key(terminal, Capability.key_ppage), "\033[5~");
        map.bind(Act.PAGE_DOWN, KeyMap.key(terminal, Capability.key_npage), "\033[6~");
        map.bind(Act.FILE_UP, "\033[1;3A");
        map.bind(Act.FILE_DOWN, "\033[1;3B");
        map.bind(Act.CODE_UP, "\033[1;2A");
        map.bind(Act.CODE_DOWN, "\033[1;2B");
        bindUnlessTaken(map, Act.BACKSPACE, "ctrl-h");
        bindUnlessTaken(map, Act.UP, "ctrl-p");
        bindUnlessTaken(map, Act.DOWN, "ctrl-n");
        keys.forEach((act, all) -> all.forEach(key -> map.bind(act, sequences(terminal, key))));
        return map;
    }

    private void bindUnlessTaken(KeyMap<Act> map, Act act, String key) {
        if (keys.values().stream().noneMatch(all -> all.contains(key))) {
            map.bind(act, KeyMap.ctrl(Character.toUpperCase(key.charAt(key.length() - 1))));
        }
    }

    /** What a terminal sends for a key. */
    private static String[] sequences(Terminal terminal, String key) {
        char last = key.charAt(key.length() - 1);
        return switch (key) {
            case "tab" -> new String[] {"\t"};
            case "enter" -> new String[] {"\r", "\n"};
            case "esc" -> new String[] {KeyMap.esc()};
            default ->
                key.startsWith("ctrl-")
                        ? new String[] {KeyMap.ctrl(Character.toUpperCase(last))}
                        : key.startsWith("alt-")
                                ? new String[] {KeyMap.alt(last)}
                                : new String[] {KeyMap.key(terminal, FUNCTION[Integer.parseInt(key.substring(1)) - 1])};
        };
    }

    private static final Capability[] FUNCTION = new Capability[FUNCTION_KEYS];

    static {
        for (int i = 0; i < FUNCTION_KEYS; i++) {
            FUNCTION[i] = Capability.valueOf("key_f" + (i + 1));
        }
    }
}
