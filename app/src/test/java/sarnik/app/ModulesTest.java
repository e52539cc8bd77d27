package sarnik.app;

import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideOutsideOfPackage;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "sarnik", importOptions = ImportOption.DoNotIncludeTests.class)
class ModulesTest {

    private static final String[] CORE = {
        "sarnik.language..",
        "sarnik.table..",
        "sarnik.geo..",
        "sarnik.format..",
        "sarnik.formula..",
        "sarnik.place..",
        "sarnik.query..",
        "sarnik.scale..",
        "sarnik.statistics..",
        "sarnik.sql..",
        "sarnik.data..",
        "sarnik.state..",
        "sarnik.narrow..",
        "sarnik.brief..",
        "sarnik.visual..",
        "sarnik.finding..",
        "sarnik.dashboard..",
        "sarnik.sentence..",
        "sarnik.wiring..",
        "sarnik.picture..",
        "sarnik.reading..",
        "sarnik.carried..",
        "sarnik.live.."
    };

    /** What works in a browser as it does on the server: no JSON, no threads, no reflection. */
    private static final String[] PLAIN = {
        "sarnik.language..",
        "sarnik.table..",
        "sarnik.formula..",
        "sarnik.query..",
        "sarnik.scale..",
        "sarnik.statistics..",
        "sarnik.sql..",
        "sarnik.state..",
        "sarnik.narrow..",
        "sarnik.brief..",
        "sarnik.visual..",
        "sarnik.reading.."
    };

    @ArchTest
    static final ArchRule theCoreKnowsNothingOfTheApplication = noClasses()
            .that()
            .resideInAnyPackage(CORE)
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("sarnik.app..", "sarnik.demo..");

    @ArchTest
    static final ArchRule theCoreHasNoInterfaceCode = noClasses()
            .that()
            .resideInAnyPackage(CORE)
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.springframework..",
                    "jakarta.servlet..",
                    "jakarta.persistence..",
                    "org.hibernate..",
                    "java.net.http..");

    /** Of the core only the readers and writers of files may know SQL: a GeoPackage is an SQLite file. */
    @ArchTest
    static final ArchRule onlyFilesKnowSql = noClasses()
            .that()
            .resideInAnyPackage(CORE)
            .and()
            .resideOutsideOfPackage("sarnik.format..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("java.sql..");

    @ArchTest
    static final ArchRule standInsKnowNothingOfSarnik = noClasses()
            .that()
            .resideInAPackage("sarnik.standins..")
            .should()
            .dependOnClassesThat(resideInAPackage("sarnik..").and(resideOutsideOfPackage("sarnik.standins..")));

    @ArchTest
    static final ArchRule thePackagesOfTheCoreHaveNoCycles = slices().matching(
                    "sarnik.(language|table|geo|format|formula|place|query|scale|statistics|sql|data|state|narrow|brief|visual|dashboard|sentence|picture|reading|carried|live)..")
            .should()
            .beFreeOfCycles();

    @ArchTest
    static final ArchRule theDemoWorksThroughTheInterfaceOnly = noClasses()
            .that()
            .resideInAPackage("sarnik.demo..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("sarnik.app..", "org.springframework..");

    @ArchTest
    static final ArchRule everyPackageOfTheCoreIsHeldByTheseRules = classes()
            .that()
            .resideInAPackage("sarnik..")
            .and()
            .resideOutsideOfPackages(
                    "sarnik.app..",
                    "sarnik.demo..",
                    "sarnik.standins..",
                    "sarnik.bench..",
                    "sarnik.browser..",
                    "sarnik.engines..")
            .should()
            .resideInAnyPackage(CORE);

    /** Nothing outside a kind's room names it, but for the one list of all; a map's picture is made of maps only. */
    @ArchTest
    static final ArchRule aKindOfVisualStaysInItsRoom = noClasses()
            .that()
            .resideOutsideOfPackages(
                    "sarnik.visual.*..",
                    "sarnik.picture..",
                    "sarnik.reading..",
                    "sarnik.browser..",
                    "sarnik.app.dashboard..",
                    "sarnik.app.carried..",
                    "sarnik.app.ground..")
            .and()
            .doNotHaveFullyQualifiedName("sarnik.dashboard.Kinds")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("sarnik.visual.*..");

    @ArchTest
    static final ArchRule noRoomKnowsAnother =
            slices().matching("sarnik.visual.(*)..").should().notDependOnEachOther();

    @ArchTest
    static final ArchRule aKindOfFilterStaysInItsRoom = noClasses()
            .that()
            .resideOutsideOfPackages("sarnik.narrow.*..", "sarnik.browser..")
            .and()
            .doNotHaveFullyQualifiedName("sarnik.dashboard.Kinds")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("sarnik.narrow.*..");

    @ArchTest
    static final ArchRule whatWorksInABrowserKnowsNoJson = noClasses()
            .that()
            .resideInAnyPackage(PLAIN)
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("tools.jackson..", "com.fasterxml.jackson..", "jakarta.json..", "com.networknt..");

    @ArchTest
    static final ArchRule whatWorksInABrowserStartsNoThreads = noClasses()
            .that()
            .resideInAnyPackage(
                    "sarnik.query..", "sarnik.scale..", "sarnik.state..", "sarnik.narrow..", "sarnik.visual..")
            .and()
            .doNotHaveFullyQualifiedName("sarnik.query.ParallelSegments")
            .should()
            .dependOnClassesThat()
            .haveNameMatching(
                    "java\\.util\\.concurrent\\.(Executor.*|ForkJoin.*|CompletableFuture|Thread.*)|java\\.lang\\.Thread");

    @ArchTest
    static final ArchRule entitiesStayInTheirRoom =
            classes().that().haveSimpleNameStartingWith("Stored").should().bePackagePrivate();
}
