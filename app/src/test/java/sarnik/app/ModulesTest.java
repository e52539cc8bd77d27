package sarnik.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

@AnalyzeClasses(packages = "sarnik", importOptions = ImportOption.DoNotIncludeTests.class)
class ModulesTest {

    private static final String[] CORE = {"sarnik.table..", "sarnik.place..", "sarnik.query..", "sarnik.scale..", "sarnik.dashboard.."};

    @ArchTest
    static final ArchRule theCoreKnowsNothingOfTheApplication = noClasses().that().resideInAnyPackage(CORE)
            .should().dependOnClassesThat().resideInAnyPackage("sarnik.app..", "sarnik.demo..");

    @ArchTest
    static final ArchRule theCoreHasNoInterfaceCode = noClasses().that().resideInAnyPackage(CORE)
            .should().dependOnClassesThat().resideInAnyPackage("org.springframework..", "jakarta.servlet..", "jakarta.persistence..", "org.hibernate..", "java.net.http..", "java.sql..");

    @ArchTest
    static final ArchRule thePackagesOfTheCoreHaveNoCycles = slices().matching("sarnik.(table|place|query|scale|dashboard)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule theDemoWorksThroughTheInterfaceOnly = noClasses().that().resideInAPackage("sarnik.demo..")
            .should().dependOnClassesThat().resideInAnyPackage("sarnik.app..", "org.springframework..");

    @ArchTest
    static final ArchRule entitiesStayInTheirRoom = classes().that().haveSimpleNameStartingWith("Stored")
            .should().bePackagePrivate();
}
