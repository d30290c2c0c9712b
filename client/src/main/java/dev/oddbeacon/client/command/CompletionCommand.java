package dev.oddbeacon.client.command;

import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon completion}. */
@Command(
        name = "completion",
        mixinStandardHelpOptions = true,
        description =
                "Prints what makes a shell complete commands, options, and names that the service has: of repositories, types, sets, saved searches and worklists.%n",
        footer = {
            "",
            "Where your shell is started:",
            "  bash, in ~/.bashrc:                     eval \"$(oddbeacon completion bash)\"",
            "  zsh, in ~/.zshrc, behind compinit:      eval \"$(oddbeacon completion zsh)\"",
            "  fish, in ~/.config/fish/config.fish:    oddbeacon completion fish | source"
        })
public final class CompletionCommand implements Callable<Integer> {
    /** A shell, and what it runs. It asks {@code oddbeacon complete} with the words so far, the last one unfinished. */
    enum Shell {
        BASH("""
                _oddbeacon() {
                    local word
                    COMPREPLY=()
                    while IFS= read -r word; do
                        printf -v word %q "$word"
                        COMPREPLY+=("$word")
                    done < <("$1" complete -- "${COMP_WORDS[@]:1:COMP_CWORD}" 2>/dev/null)
                    [[ ${COMPREPLY[0]-} != *: ]] || compopt -o nospace 2>/dev/null
                }
                complete -o default -F _oddbeacon oddbeacon ./oddbeacon
                """),
        ZSH("""
                _oddbeacon() {
                    local -a found
                    found=("${(@f)$("${words[1]}" complete -- "${(@)words[2,CURRENT]}" 2>/dev/null)}")
                    [[ -n "$found" ]] && compadd -- "${found[@]}" || _files
                }
                compdef _oddbeacon oddbeacon
                """),
        FISH("""
                complete -c oddbeacon -a '(oddbeacon complete -- (commandline -opc)[2..] (commandline -ct) 2>/dev/null)'
                """);

        private final String script;

        Shell(String script) {
            this.script = script;
        }
    }

    @Parameters(paramLabel = "bash|zsh|fish", description = "The shell.")
    private Shell shell;

    @Override
    public Integer call() {
        Terminal.bytes(shell.script.getBytes(StandardCharsets.UTF_8));
        return ExitStatus.FOUND;
    }
}
