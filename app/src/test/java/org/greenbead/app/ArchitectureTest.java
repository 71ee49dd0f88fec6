package org.greenbead.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;

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

    @Test
    public void noStaticHoldsState() {
        noFields().that().areStatic().should().notBeFinal().check(ALL);
    }
}
