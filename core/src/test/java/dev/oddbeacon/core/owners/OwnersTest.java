package dev.oddbeacon.core.owners;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OwnersTest {
    private static final Owners TIDE = Owners.parse("""
            # Who looks after what
            *             @quillhaven/shore
            *.c           @bo            # and nobody else
            /docs/        edda@quillhaven.example @jonas
            charts/*      @cleo
            /src/**/sign.c
            with\\ space.txt @mira
            !never        @x
            [             @y
            """);

    @ParameterizedTest
    @CsvSource({
        "README, @quillhaven/shore",
        "deep/down/tide.c, @bo",
        "docs/a/b.c, edda@quillhaven.example @jonas",
        "deep/docs/a, @quillhaven/shore",
        "charts/north, @cleo",
        "charts/old/north, @quillhaven/shore",
        "src/a/sign.c, ''",
        "src/sign.c, ''",
        "with space.txt, @mira",
        "never, @quillhaven/shore"
    })
    void theLastPatternThatMatchesDecides(String path, String owners) {
        assertThat(String.join(" ", TIDE.of(path))).isEqualTo(owners);
    }

    @Test
    void eachSectionDecidesForItself() {
        Owners owners = Owners.parse("""
                * @all
                [Gauges][2] @gauges @bo
                gauge/
                gauge/old.c @jonas
                ^[Signs]
                *.c @signs @bo
                """);
        assertThat(owners.of("gauge/new.c")).containsExactly("@all", "@gauges", "@bo", "@signs");
        assertThat(owners.of("gauge/old.c")).containsExactly("@all", "@jonas", "@signs", "@bo");
        assertThat(owners.of("README")).containsExactly("@all");
        assertThat(Owners.NONE.of("README")).isEmpty();
        assertThat(Owners.parse("\r\n[\r\n]\r\n").of("a")).isEmpty();
    }
}
