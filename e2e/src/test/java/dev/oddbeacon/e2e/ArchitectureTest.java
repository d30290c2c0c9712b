package dev.oddbeacon.e2e;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.belongToAnyOf;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.type;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethodCall;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.index.CurrentView;
import dev.oddbeacon.server.index.KeptViews;
import dev.oddbeacon.server.index.Publisher;
import dev.oddbeacon.server.records.RepositoryRecord;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RestController;

class ArchitectureTest {
    private final JavaClasses classes = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("dev.oddbeacon");

    @Test
    void theCoreKnowsNoSpringNoHttpNoDatabaseNoGit() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.core..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        "org.springframework..",
                        "jakarta..",
                        "java.net.http..",
                        "java.sql..",
                        "org.eclipse.jgit..",
                        "tools.jackson..",
                        "dev.oddbeacon.server..",
                        "dev.oddbeacon.git..",
                        "dev.oddbeacon.client..")
                .check(classes);
    }

    @Test
    void ofTheWireFormatTheCoreKnowsOnlyTheTableOfScopeParts() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.core..")
                .should()
                .dependOnClassesThat(resideInAPackage("dev.oddbeacon.api..").and(not(type(ScopePart.class))))
                .check(classes);
    }

    @Test
    void theCoreAsksNoClockOfTheSystem() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.core..")
                .should()
                .callMethod(Instant.class, "now")
                .orShould()
                .callMethod(LocalDate.class, "now")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .orShould()
                .dependOnClassesThat()
                .areAssignableTo(Clock.class)
                .check(classes);
    }

    @Test
    void controllersReachIndexCatalogueAndRecordsThroughTheContextOfTheirCaller() {
        noClasses()
                .that()
                .areAnnotatedWith(RestController.class)
                .should()
                .dependOnClassesThat(resideInAPackage("dev.oddbeacon.server.records..")
                        .and(not(type(RepositoryRecord.State.class)))
                        .or(belongToAnyOf(Catalogue.class, CurrentView.class, KeptViews.class, Publisher.class)))
                .check(classes);
    }

    @Test
    void theClientSpeaksOnlyHttpThroughTheApi() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.client..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("dev.oddbeacon.server..", "dev.oddbeacon.git..", "org.springframework..")
                .check(classes);
    }

    @Test
    void theClientAnalysesOnlyWhatTheServiceCannotKnow() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.client..")
                .and()
                .resideOutsideOfPackages("dev.oddbeacon.client.worktree..", "dev.oddbeacon.client.lsp..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("dev.oddbeacon.core..", "dev.oddbeacon.wire..", "org.eclipse.lsp4j..")
                .check(classes);
    }

    @Test
    void theApiDependsOnNothing() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.api..")
                .should()
                .dependOnClassesThat()
                .resideOutsideOfPackages("dev.oddbeacon.api..", "java..")
                .check(classes);
    }

    @Test
    void onlyGitKnowsTheGitLibrary() {
        noClasses()
                .that()
                .resideInAPackage("dev.oddbeacon.server..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.eclipse.jgit..")
                .check(classes);
    }

    /**
     * Regular expressions of the JDK backtrack: one text can keep a thread for ever. What does not is our own
     * automaton, RE2/J, and {@code Split}. Reviewed: the warm-up takes apart addresses that it wrote itself.
     */
    @Test
    void nothingThatACallerOrARepositorySuppliesMeetsABacktrackingExpression() {
        DescribedPredicate<JavaMethodCall> ofText = new DescribedPredicate<>("a method of String that takes one") {
            @Override
            public boolean test(JavaMethodCall call) {
                return call.getTargetOwner().isEquivalentTo(String.class)
                        && Set.of("matches", "replaceAll", "replaceFirst", "split", "splitWithDelimiters")
                                .contains(call.getName());
            }
        };
        noClasses()
                .that()
                .resideInAnyPackage("dev.oddbeacon.core..", "dev.oddbeacon.git..", "dev.oddbeacon.server..")
                .and()
                .doNotHaveSimpleName("WarmUp")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("java.util.regex..")
                .orShould()
                .callMethodWhere(ofText)
                .check(classes);
    }

    @Test
    void thePackagesOfNoModuleFormCircles() {
        slices().matching("dev.oddbeacon.core.(*)..").should().beFreeOfCycles().check(classes);
        slices().matching("dev.oddbeacon.server.(*)..")
                .should()
                .beFreeOfCycles()
                .check(classes);
        slices().matching("dev.oddbeacon.client.(*)..")
                .should()
                .beFreeOfCycles()
                .check(classes);
    }
}
