package org.greenbead.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noFields;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.testng.annotations.Test;

/** The trade knows no interface, no database, no socket, no clock and no thread of its own. */
public class ArchitectureTest {
    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests()).importPackages("org.greenbead.core");

    @Test
    public void tradeIsPlainJava() {
        noClasses().should().dependOnClassesThat()
                .resideInAnyPackage("javafx..", "java.sql..", "java.net..", "java.nio.file..", "java.awt..",
                        "org.greenbead.store..",
                        "org.greenbead.device..", "org.greenbead.app..", "org.greenbead.cli..")
                .check(CORE);
    }

    @Test
    public void tradeReadsNoClockAndStartsNoThread() {
        noClasses().should().dependOnClassesThat().haveNameMatching(
                "java\\.time\\.Clock|java\\.lang\\.Thread|java\\.util\\.concurrent\\..*Executor.*|java\\.util\\.Timer")
                .check(CORE);
    }

    @Test
    public void packagesStandInNoCircle() {
        slices().matching("org.greenbead.core.(*)..").should().beFreeOfCycles().check(CORE);
    }

    @Test
    public void noStaticHoldsState() {
        noFields().that().areStatic().should().notBeFinal().check(CORE);
    }

    @Test
    public void quantitiesKnowNothingOfTheRest() {
        noClasses().that().resideInAPackage("..quantity..").should().dependOnClassesThat()
                .resideInAnyPackage("org.greenbead.core.run..", "org.greenbead.core.thermal..",
                        "org.greenbead.core.board..")
                .check(CORE);
        noClasses().that().resideInAPackage("..thermal..").should().dependOnClassesThat()
                .resideInAnyPackage("org.greenbead.core.run..", "org.greenbead.core.route..").check(CORE);
    }
}
