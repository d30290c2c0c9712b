package dev.oddbeacon.client.browse;

import dev.oddbeacon.client.browse.BrowseKeys.Act;
import dev.oddbeacon.client.options.ClientSettings;
import dev.oddbeacon.client.options.OpenOptions;
import dev.oddbeacon.client.options.ReadingOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jline.keymap.BindingReader;
import org.jline.keymap.KeyMap;
import org.jline.terminal.Attributes;
import org.jline.terminal.Size;
import org.jline.terminal.TerminalBuilder;
import org.jline.utils.Display;
import org.jline.utils.InfoCmp.Capability;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "browse",
        mixinStandardHelpOptions = true,
        description = "Shows results in the whole terminal while you type: hits above, code below.%n",
        footer = {
            "",
            "Keys:",
            "  \u2193 \u2191             next and previous hit; page keys: ten of them; Alt: next and previous file",
            "  Tab             lines or files",
            "  Ctrl-R          how the text is read: plain, regular expression, ...",
            "  Ctrl-T, Ctrl-W  case; whole words",
            "  Ctrl-S          edits the scope, in the options of other commands: --repo fare-gate --type go; Enter searches there, Esc leaves it as it was",
            "  Ctrl-X          chooses a line, or lets go of it",
            "  Ctrl-O          opens the chosen lines, or the current one, in the editor, and comes back",
            "  Shift \u2193 \u2191       scrolls the code",
            "  Enter           leaves and prints the chosen lines, or the current one, as repository/path:line:column: text",
            "  Esc, Ctrl-C     leaves without",
            "",
            "Other keys are kept in the client's settings: browse.key.reading = ctrl-g, or alt-g, f2, tab; the names are",
            "subject, reading, case, word, scope, choose, editor, clear, take, leave.",
            "",
            "Examples:",
            "  oddbeacon browse",
            "  oddbeacon browse --here surge"
        })
public final class BrowseCommand implements Callable<Integer> {
    private static final int WAIT_MILLIS = 40;
    private static final int PAGE = 10;

    @Parameters(paramLabel = "TEXT", arity = "0..1", defaultValue = "", description = "What to begin with.")
    private String text;

    @Option(names = "--files", description = "Begin with files rather than lines.")
    private boolean files;

    @Mixin
    private ScopeOptions scope;

    @Mixin
    private Service service;

    @Override
    public Integer call() throws IOException {
        BrowseQuest.Subject subject = files ? BrowseQuest.Subject.FILES : BrowseQuest.Subject.LINES;
        BrowseState state = new BrowseState(new BrowseQuest(
                subject, text, files ? "fragments" : "plain", ReadingOptions.CaseMode.AUTO, false, scope.asTyped()));
        List<BrowseItem> taken;
        Names names;
        BrowseKeys chosenKeys = BrowseKeys.of(ClientSettings.read());
        try (org.jline.terminal.Terminal terminal = TerminalBuilder.builder()
                        .system(true)
                        .systemOutput(TerminalBuilder.SystemOutput.SysOutOrSysErr)
                        .dumb(false)
                        .jni(false)
                        .ffm(false)
                        .exec(true)
                        .build();
                BrowseSearch search = new BrowseSearch(service)) {
            names = search.names(state.quest().scope()); // an error is told before the screen is taken
            taken = read(terminal, state, search, chosenKeys);
            names = nameable(search, state);
        } catch (IllegalStateException e) {
            throw new ServiceProblem(
                    "browse needs a terminal. oddbeacon lines prints results anywhere.", ExitStatus.WRONG);
        }
        Terminal out = new Terminal(Terminal.Color.NEVER);
        for (BrowseItem item : taken) {
            String name = Terminal.clean(names.of(item.repository(), item.path()));
            out.line(
                    item.line() == 0
                            ? name
                            : name + ":" + item.line() + ":" + item.column() + ": " + Terminal.clean(item.text()));
        }
        return ExitStatus.of(!taken.isEmpty());
    }

    private List<BrowseItem> read(
            org.jline.terminal.Terminal terminal, BrowseState state, BrowseSearch search, BrowseKeys chosenKeys) {
        Attributes before = terminal.enterRawMode();
        Attributes raw = terminal.getAttributes();
        raw.setLocalFlag(Attributes.LocalFlag.ISIG, false); // Ctrl-C is a key here
        raw.setLocalFlag(Attributes.LocalFlag.IEXTEN, false);
        raw.setInputFlag(Attributes.InputFlag.IXON, false); // and so is Ctrl-S
        terminal.setAttributes(raw);
        terminal.puts(Capability.enter_ca_mode);
        terminal.puts(Capability.keypad_xmit);
        try {
            return loop(terminal, state, search, new Display(terminal, true), chosenKeys, before, raw);
        } finally {
            terminal.puts(Capability.keypad_local);
            terminal.puts(Capability.exit_ca_mode);
            terminal.flush();
            terminal.setAttributes(before);
        }
    }

    private List<BrowseItem> loop(
            org.jline.terminal.Terminal terminal,
            BrowseState state,
            BrowseSearch search,
            Display display,
            BrowseKeys chosenKeys,
            Attributes before,
            Attributes raw) {
        BindingReader keys = new BindingReader(terminal.reader());
        KeyMap<Act> map = chosenKeys.map(terminal);
        search.ask(state.quest());
        Size size = new Size();
        boolean isStale = true;
        while (true) {
            isStale |= search.update(state);
            if (!terminal.getSize().equals(size)) {
                size.copy(terminal.getSize());
                display.clear();
                display.resize(Math.max(6, size.getRows()), Math.max(20, size.getColumns()));
                isStale = true;
            }
            if (isStale) {
                draw(state, search, display, Math.max(6, size.getRows()), Math.max(20, size.getColumns()));
                isStale = false;
            }
            if (keys.peekCharacter(WAIT_MILLIS) < 0) {
                if (keys.peekCharacter(1) == -1) {
                    return List.of(); // the terminal is gone
                }
                continue;
            }
            Act act = keys.readBinding(map, null, true);
            if (act == null) {
                return List.of();
            }
            BrowseQuest asked = state.quest();
            switch (act) {
                case TAKE -> {
                    if (!state.editsScope()) {
                        return state.taken();
                    }
                    state.takeScope();
                }
                case LEAVE -> {
                    if (!state.editsScope()) {
                        return List.of();
                    }
                    state.dropScope();
                }
                case EDITOR -> edit(terminal, state, search, display, before, raw);
                default -> act(act, state, keys.getLastBinding());
            }
            if (!state.quest().equals(asked)) {
                search.ask(state.quest());
            } else if (state.current() >= state.items().size() - PAGE) {
                search.more(state.quest());
            }
            isStale = true;
        }
    }

    private static void act(Act act, BrowseState state, String typed) {
        switch (act) {
            case TYPE -> state.type(typed);
            case BACKSPACE -> state.backspace();
            case CLEAR -> state.clear();
            case LEFT -> state.moveCaret(-1);
            case RIGHT -> state.moveCaret(1);
            case UP -> state.move(-1);
            case DOWN -> state.move(1);
            case PAGE_UP -> state.move(-PAGE);
            case PAGE_DOWN -> state.move(PAGE);
            case FILE_UP -> state.moveFile(-1);
            case FILE_DOWN -> state.moveFile(1);
            case CODE_UP -> state.scroll(-1);
            case CODE_DOWN -> state.scroll(1);
            case SUBJECT -> state.ask(state.quest().nextSubject());
            case READING -> state.ask(state.quest().nextReading());
            case CASE -> state.ask(state.quest().nextCase());
            case WORD -> state.ask(state.quest().otherWord());
            case SCOPE -> state.switchEdited();
            case CHOOSE -> state.choose();
            case EDITOR, TAKE, LEAVE -> {}
        }
    }

    private static void draw(BrowseState state, BrowseSearch search, Display display, int rows, int columns) {
        BrowseScreen.Drawn drawn = BrowseScreen.draw(
                state, nameable(search, state), state.item().map(search::file).orElse(List.of()), rows, columns);
        display.update(drawn.lines(), drawn.cursor());
    }

    /** The noun for files in messages; an option that is being typed is no scope yet. */
    private static Names nameable(BrowseSearch search, BrowseState state) {
        try {
            return search.names(state.quest().scope());
        } catch (ServiceProblem half) {
            return new Names(Optional.empty());
        }
    }

    /** Lends the terminal to the editor. */
    private void edit(
            org.jline.terminal.Terminal terminal,
            BrowseState state,
            BrowseSearch search,
            Display display,
            Attributes before,
            Attributes raw) {
        terminal.puts(Capability.exit_ca_mode);
        terminal.flush();
        terminal.setAttributes(before);
        try {
            OpenOptions.openAll(
                    search.names(state.quest().scope()),
                    service,
                    state.taken().stream()
                            .map(item ->
                                    new OpenOptions.Target(item.repository(), item.path(), item.line(), item.column()))
                            .toList());
        } catch (ServiceProblem problem) {
            state.failed(problem.getMessage());
        } finally {
            terminal.setAttributes(raw);
            terminal.puts(Capability.enter_ca_mode);
            terminal.puts(Capability.keypad_xmit);
            display.reset();
        }
    }
}
