package dev.oddbeacon.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

class ArchitectureTest {
    private final JavaClasses classes = new ClassFileImporter().withImportOption(new ImportOption.DoNotIncludeTests()).importPackages("dev.oddbeacon");

    @Test
    void theCoreKnowsNoSpringNoHttpNoDatabaseNoGit() {
        noClasses().that().resideInAPackage("dev.oddbeacon.core..").should().dependOnClassesThat()
                .resideInAnyPackage("org.springframework..", "jakarta..", "java.net.http..", "java.sql..", "org.eclipse.jgit..", "tools.jackson..",
                        "dev.oddbeacon.server..", "dev.oddbeacon.api..", "dev.oddbeacon.git..", "dev.oddbeacon.client..").check(classes);
    }

    @Test
    void theClientSpeaksOnlyHttpThroughTheApi() {
        noClasses().that().resideInAPackage("dev.oddbeacon.client..").should().dependOnClassesThat()
                .resideInAnyPackage("dev.oddbeacon.core..", "dev.oddbeacon.server..", "dev.oddbeacon.git..", "org.springframework..").check(classes);
    }

    @Test
    void theApiDependsOnNothing() {
        noClasses().that().resideInAPackage("dev.oddbeacon.api..").should().dependOnClassesThat().resideOutsideOfPackages("dev.oddbeacon.api..", "java..").check(classes);
    }

    @Test
    void onlyGitKnowsTheGitLibrary() {
        noClasses().that().resideInAPackage("dev.oddbeacon.server..").should().dependOnClassesThat().resideInAPackage("org.eclipse.jgit..").check(classes);
    }

    @Test
    void thePackagesOfTheCoreAndTheServiceFormNoCircles() {
        slices().matching("dev.oddbeacon.core.(*)..").should().beFreeOfCycles().check(classes);
        slices().matching("dev.oddbeacon.server.(*)..").should().beFreeOfCycles().check(classes);
    }
}
