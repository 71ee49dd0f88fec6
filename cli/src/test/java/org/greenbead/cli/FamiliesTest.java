package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.Strands;
import org.greenbead.core.work.WorkScript;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Every kind of further chip, worked from intake to close beside the chip of its job, from records, ticks, ways and runs alone. The heats were run when the examples
 * were made; here what they left is taken from the job files.
 */
public class FamiliesTest {
    private static final Path FOLDER = Path.of("../docs/examples/families");
    private static final OpenFiles FILES = new OpenFiles();

    @DataProvider
    Object[][] kinds() {
        return Routes.shipped().strandKinds().stream().map(k -> new Object[]{k.key()})
                .toArray(Object[][]::new);
    }

    @DataProvider
    Object[][] twins() {
        return new Object[][]{{"revive"}, {"transplant"}};
    }

    private static List<WorkScript.Step> played(String kind, boolean twin) throws Exception {
        List<Job> made = new ArrayList<>();
        String name = kind + (twin ? "-twin" : "");
        try (Stream<Path> files = Files.list(FOLDER)) {
            for (Path file : files.filter(f -> f.getFileName().toString()
                    .matches(name + "(-[UX]\\d+)?\\.job\\.bead\\.json")).sorted().toList()) {
                made.add(FILES.read(file, Format.JOB, Job.class));
            }
        }
        List<WorkScript.Step> steps = ExamplesCommand.read(FOLDER.resolve(kind + ".work")).play(twin,
                ExamplesCommand.world(FILES, ExamplesCommand.kept(made)));
        for (Job job : steps.getLast().family()) {
            Job file = made.stream().filter(j -> j.id().equals(job.id())).findFirst().orElseThrow();
            assertEquals(FILES.write(Format.JOB, job.withAccount(List.of())), FILES.write(Format.JOB, file),
                    "the script and its job file differ: ./greenbead examples docs/examples/families");
        }
        assertEquals(steps.getLast().family().size(), made.size());
        return steps;
    }

    /** Each chip ends with every step worked and every gate green, and nothing is said against any of them. */
    @Test(dataProvider = "kinds")
    public void everyChipGoesFromIntakeToClose(String kind) throws Exception {
        List<WorkScript.Step> steps = played(kind, false);
        List<WorkScript.Step> ends = steps.stream().filter(s -> ExamplesCommand.last(steps, s)).toList();
        assertTrue(ends.size() >= 2, "several chips");
        for (WorkScript.Step end : ends) {
            String id = end.job().id();
            assertEquals(end.judgement().judged().open().stream().map(n -> n.rule().id()).toList(), List.of(),
                    id);
            assertEquals(end.judgement().notKnown().stream().filter(NotKnown::holds).map(n -> n.rule().id())
                    .toList(), List.of(), id);
            assertEquals(WorkScript.left(end.job()), List.of(), id);
        }
        Job main = steps.getLast().job();
        assertTrue(main.strandOf().isEmpty(), "the job itself is closed last");
        assertTrue(Strands.of(main, steps.getLast().family()).stream()
                .allMatch(s -> s.records("run").stream().anyMatch(r -> r.text("bead").equals("lift_run"))
                        || kind.equals("milled")),
                "each was heated by itself");
    }

    @Test(dataProvider = "twins")
    public void twinIsToldAtTheLineItCouldBeKnown(String kind) throws Exception {
        List<WorkScript.Step> steps = played(kind, true);
        for (WorkScript.Caught caught : ExamplesCommand.read(FOLDER.resolve(kind + ".work")).caught()) {
            assertEquals(WorkScript.told(caught, steps).orElse(0), caught.lines(), caught.rule());
        }
    }
}
