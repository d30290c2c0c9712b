package dev.oddbeacon.client.options;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.client.service.ServiceProblem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FileNameTest {
    @ParameterizedTest
    @CsvSource({
        "fare-gate:a/b.go, fare-gate, a/b.go, ''",
        "fare-gate/a/b.go, fare-gate, a/b.go, ''",
        "r:a@v1, r, a, v1",
        "r/a:b, r, a:b, ''",
        "r:@x, r, @x, ''"
    })
    void aFileIsNamedInTwoWays(String text, String repository, String path, String revision) {
        assertThat(FileName.parse(text, null)).isEqualTo(new FileName(repository, path, revision));
    }

    @Test
    void aRevisionOfItsOwnLeavesThePathAlone() {
        assertThat(FileName.parse("r:a@b", "v1")).isEqualTo(new FileName("r", "a@b", "v1"));
        assertThatThrownBy(() -> FileName.parse("nothing", null)).isInstanceOf(ServiceProblem.class);
        assertThatThrownBy(() -> FileName.parse("r:", null)).isInstanceOf(ServiceProblem.class);
    }
}
