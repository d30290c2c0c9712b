package dev.oddbeacon.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FileTypesTest {
    private static String type(String path, String content, String... others) {
        return FileTypes.of(path, signs(content), true, Set.of(others)::contains);
    }

    static Signs signs(String content) {
        return Signs.of(
                content.getBytes(StandardCharsets.UTF_8), (int) content.lines().count());
    }

    @ParameterizedTest
    @CsvSource({
        "a/Ferry.java,java",
        "Makefile,make",
        "x/GNUmakefile,make",
        "Dockerfile.arm,dockerfile",
        "types.d.ts,typescript",
        "a.tar.gz,text",
        "pom.xml,xml",
        "Kconfig.debug,kconfig",
        "conf.h.in,c",
        "Gemfile,ruby",
        "go.sum,gomod",
        ".editorconfig,ini",
        "README,text",
        "README.md,markdown",
        "no_ending,text",
        "Cargo.lock,toml",
        "style.SCSS,sass",
        "a.unheard,text",
        "lib.so.1,text",
        "docker/Dockerfile,dockerfile",
        "foo.html.erb,template",
        ".gitattributes,git"
    })
    void namesTell(String path, String expected) {
        assertThat(type(path, "some text\n")).isEqualTo(expected);
    }

    @Test
    void firstLinesTellWhereNamesDoNot() {
        assertThat(type("bin/refresh", "#!/usr/bin/env python3\nimport os\n")).isEqualTo("python");
        assertThat(type("bin/refresh", "#!/bin/bash -e\n")).isEqualTo("shell");
        assertThat(type("bin/refresh", "#! /usr/bin/env -S LANG=C node --max-old-space-size=100\n"))
                .isEqualTo("javascript");
        assertThat(type("bin/refresh", "#!/usr/bin/perl5.36 -w\n")).isEqualTo("perl");
        assertThat(type("refresh", "# -*- mode: ruby; coding: utf-8 -*-\n")).isEqualTo("ruby");
        assertThat(type("rules", "# vim: ft=make\n")).isEqualTo("make");
        assertThat(type("rules", "#!/usr/bin/make -f\n")).isEqualTo("make");
        assertThat(type("some.lock", "{\n  \"version\": 1\n}\n")).isEqualTo("json");
        assertThat(type("other.lock", "[[package]]\nname = \"tide\"\n")).isEqualTo("toml");
        assertThat(type("plain.lock", "tide 1.2\n")).isEqualTo("text");
        assertThat(type("server.conf", "# main\n[server]\nport = 1\n")).isEqualTo("ini");
        assertThat(type("web.config", "<?xml version=\"1.0\"?>\n<a/>")).isEqualTo("xml");
        assertThat(type("quay.1", ".TH QUAY 1\n")).isEqualTo("troff");
        assertThat(type("texts.ts", "<?xml version=\"1.0\"?>\n<!DOCTYPE TS>\n")).isEqualTo("xml");
        assertThat(type("solve.m", "% solves\nfunction x = solve(a)\n")).isEqualTo("matlab");
        assertThat(type("view.inc", "<?php echo 1;")).isEqualTo("php");
    }

    @Test
    void aHeaderIsWhatItsLinesSay() {
        assertThat(type("a.h", "#ifndef A_H\n#define A_H\nint depth(void);\n#endif\n"))
                .isEqualTo("c");
        assertThat(type("a.h", "#pragma once\n#include <vector>\n")).isEqualTo("cpp");
        assertThat(type("a.h", "#pragma once\nnamespace quay {\nint depth();\n}\n"))
                .isEqualTo("cpp");
        assertThat(
                        type(
                                "a.h",
                                "#ifndef A\n/* class of tides:\n   class one and two,\n   namespace for all */\nstruct a;\n#endif\n"))
                .isEqualTo("c");
        assertThat(
                        type(
                                "a.h",
                                "#ifndef A\n#ifdef __cplusplus\nnamespace x { class A; }\nextern \"C\" {\n#endif\nint depth(void);\n#ifdef __cplusplus\n}\n#endif\n#endif\n"))
                .isEqualTo("c");
        assertThat(type("a.h", "#import <Foundation/Foundation.h>\n@interface Tide : NSObject\n@end\n"))
                .isEqualTo("objectivec");
        assertThat(type("src/a.h", "#define DEPTH 3\n", "src/a.cc")).isEqualTo("cpp");
        assertThat(type("src/a.h", "#define DEPTH 3\n", "src/a.c")).isEqualTo("c");
    }

    @Test
    void filesWithoutTextAreImagesOrBinary() {
        assertThat(FileTypes.of("a/beacon.png", Signs.NONE, false, _ -> false)).isEqualTo("image");
        assertThat(FileTypes.of("a/Ferry.java", Signs.NONE, false, _ -> false)).isEqualTo("binary");
    }

    @Test
    void everyHintIsATypeThatThereIs() {
        for (Hint hint : Hint.values()) {
            hint.type()
                    .ifPresent(
                            type -> assertThat(FileTypes.isKnown(type)).as(type).isTrue());
        }
    }

    @Test
    void signsComeBackFromTheirTwoBytes() {
        Signs signs = new Signs(Hint.DIFF, true, true);
        assertThat(Signs.decoded(signs.hint().ordinal(), signs.flags())).isEqualTo(signs);
        assertThat(Signs.decoded(Signs.NONE.hint().ordinal(), Signs.NONE.flags()))
                .isEqualTo(Signs.NONE);
    }
}
