package org.greenbead.cli;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.testng.annotations.Test;

/** Arrows point down: cli to store and device, those to core, and store and device not to each other. */
public class ArchitectureTest {
    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests()).importPackages("org.greenbead");

    @Test
    public void storeAndDeviceDoNotKnowEachOther() {
        noClasses().that().resideInAPackage("org.greenbead.store..").should().dependOnClassesThat()
                .resideInAnyPackage("org.greenbead.device..", "org.greenbead.cli..").check(ALL);
        noClasses().that().resideInAPackage("org.greenbead.device..").should().dependOnClassesThat()
                .resideInAnyPackage("org.greenbead.store..", "org.greenbead.cli..").check(ALL);
    }

    @Test
    public void databaseStaysInTheStoreAndSocketsInTheDevice() {
        noClasses().that().resideOutsideOfPackage("org.greenbead.store..").should().dependOnClassesThat()
                .resideInAnyPackage("java.sql..", "org.jdbi..", "org.flywaydb..").check(ALL);
        noClasses().that().resideInAnyPackage("org.greenbead.core..", "org.greenbead.store..").should()
                .dependOnClassesThat().resideInAnyPackage("java.net..", "com.ghgande..").check(ALL);
    }

    @Test
    public void nothingHereKnowsTheWindow() {
        noClasses().should().dependOnClassesThat().resideInAnyPackage("javafx..", "org.greenbead.app..")
                .check(ALL);
    }

    @Test
    public void noStaticHoldsState() {
        noFields().that().areStatic().should().notBeFinal().check(ALL);
    }
}
