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
        "sarnik.table..",
        "sarnik.geo..",
        "sarnik.format..",
        "sarnik.place..",
        "sarnik.query..",
        "sarnik.scale..",
        "sarnik.dashboard.."
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
                    "sarnik.(table|geo|format|place|query|scale|dashboard)..")
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
    static final ArchRule entitiesStayInTheirRoom =
            classes().that().haveSimpleNameStartingWith("Stored").should().bePackagePrivate();
}
