package org.greenbead.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.testng.annotations.Test;

/** The window holds no rule of the trade, and nothing below it knows the window. */
public class ArchitectureTest {
    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests()).importPackages("org.greenbead");

    @Test
    public void nothingBelowKnowsTheWindow() {
        noClasses().that()
                .resideInAnyPackage("org.greenbead.core..", "org.greenbead.store..", "org.greenbead.device..")
                .should().dependOnClassesThat()
                .resideInAnyPackage("org.greenbead.app..", "javafx..", "atlantafx..").check(ALL);
    }

    @Test
    public void viewsTouchNoDatabaseSocketOrModel() {
        noClasses().that().resideInAPackage("org.greenbead.app..").should().dependOnClassesThat()
                .resideInAnyPackage("java.sql..", "java.nio.channels..", "org.jdbi..", "com.ghgande..")
                .check(ALL);
        noClasses().that().resideInAPackage("org.greenbead.app..").should().dependOnClassesThat()
                .haveFullyQualifiedName("org.greenbead.core.thermal.SheetModel").check(ALL);
    }

    /** The frame knows the pages; no page knows the frame, and what pages are made of knows none of them. */
    @Test
    public void packagesOfTheWindowGoInNoCircle() {
        slices().matching("org.greenbead.app.(*)..").should().beFreeOfCycles().check(ALL);
        noClasses().that().resideInAPackage("org.greenbead.app.shell..").should().dependOnClassesThat()
                .resideInAnyPackage("org.greenbead.app.main..", "org.greenbead.app.work..",
                        "org.greenbead.app.run..", "org.greenbead.app.jobs..")
                .check(ALL);
        noClasses().that().resideInAPackage("org.greenbead.app..").and()
                .resideOutsideOfPackages("org.greenbead.app", "org.greenbead.app.main..",
                        "org.greenbead.app.demo..")
                .should().dependOnClassesThat().resideInAPackage("org.greenbead.app.main..").check(ALL);
    }

    @Test
    public void noStaticHoldsState() {
        noFields().that().areStatic().should().notBeFinal().check(ALL);
    }
}
