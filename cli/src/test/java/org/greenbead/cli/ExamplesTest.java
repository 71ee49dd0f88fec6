package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.proof.JobSummary;
import org.greenbead.core.proof.ReportLanguage;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.core.work.WorkScript;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Twelve jobs worked from records, ticks, ways and runs alone, and beside each a twin in which one thing is done wrongly. Their heats were run
 * when the examples were made; here what they left is taken from the job file, so that a script that says something else is found out.
 */
public class ExamplesTest {
    private static final Path FOLDER = Path.of("../docs/examples/jobs");
    private static final OpenFiles FILES = new OpenFiles();

    @DataProvider
    Object[][] kinds() {
        return Arrays.stream(JobKind.values()).map(k -> new Object[]{k.key()}).toArray(Object[][]::new);
    }

    /** The sound ones; each is worked once. */
    private final Map<String, List<WorkScript.Step>> sound = new HashMap<>();

    private List<WorkScript.Step> sound(String kind) throws Exception {
        if (!sound.containsKey(kind)) {
            sound.put(kind, played(kind, false));
        }
        return sound.get(kind);
    }

    private static List<WorkScript.Step> played(String kind, boolean twin) throws Exception {
        Job made = FILES.read(FOLDER.resolve(kind + (twin ? "-twin" : "") + ".job.bead.json"), Format.JOB,
                Job.class);
        List<WorkScript.Step> steps = script(kind).play(twin,
                ExamplesCommand.world(FILES, ExamplesCommand.kept(List.of(made))));
        assertEquals(FILES.write(Format.JOB, steps.getLast().job().withAccount(List.of())),
                FILES.write(Format.JOB, made),
                "the script and its job file differ: ./greenbead examples docs/examples/jobs");
        return steps;
    }

    private static WorkScript script(String kind) throws Exception {
        return ExamplesCommand.read(FOLDER.resolve(kind + ".work"));
    }

    @Test(dataProvider = "kinds")
    public void soundJobEndsWithEveryGateGreenAndNothingSaidAgainstIt(String kind) throws Exception {
        List<WorkScript.Step> steps = sound(kind);
        WorkScript.Step end = steps.getLast();
        assertEquals(end.judgement().judged().open().stream().map(n -> n.rule().id()).toList(), List.of());
        assertEquals(end.judgement().notKnown().stream().filter(NotKnown::holds).map(n -> n.rule().id())
                .toList(), List.of());
        assertEquals(WorkScript.left(end.job()), List.of());
        assertTrue(Files.readString(FOLDER.resolve(kind + ".job.bead.json"))
                .contains("\"kind\" : \"" + kind + "\""));
        var said = new java.util.TreeSet<>(java.util.Set.of("job"));
        for (School school : Schools.shipped().of(end.job())) {
            said.addAll(Facts.none().with(school.require(Schools.shipped().chosen(end.job(), school)).facts())
                    .root()
                    .keySet());
        }
        assertTrue(said.containsAll(end.job().facts().root().keySet()),
                "no fact is typed, ways aside: " + end.job().facts().root().keySet());
    }

    /** Of the checks of a route at most two in five are left to be said by hand; the rest tick themselves. */
    @Test(dataProvider = "kinds")
    public void whatIsOnRecordIsNotAsked(String kind) throws Exception {
        List<WorkScript.Step> steps = sound(kind);
        long checks = steps.getLast().job().beads().stream().mapToLong(b -> b.checks().size()).sum();
        int byHand = steps.stream().mapToInt(WorkScript.Step::ticks).sum();
        assertTrue(byHand * 5 <= checks * 2, byHand + " of " + checks);
        assertTrue(steps.getLast().job().beads().stream().flatMap(b -> b.checks().stream())
                .allMatch(c -> c.state() == Attest.YES));
    }

    /**
     * The same job on a bench that has worked its like: against saying every check and typing every field, as the program once asked, less than three in four of
     * the acts are left, texts, photos and runs apart. The job that comes of it is as sound.
     */
    @Test(dataProvider = "kinds")
    public void theSecondJobOfItsKindAsksForLittle(String kind) throws Exception {
        List<WorkScript.Step> first = sound(kind);
        Job made = FILES.read(FOLDER.resolve(kind + ".job.bead.json"), Format.JOB, Job.class);
        Job before = new Job("SB-0400", made.title(), made.complaint(), made.customer(), made.board(),
                made.target(),
                made.bench(), made.beads(), made.facts(), made.records());
        List<WorkScript.Step> second = script(kind).play(false,
                ExamplesCommand.world(FILES, ExamplesCommand.kept(List.of(made))), List.of(before));
        long checks = made.beads().stream().mapToLong(b -> b.checks().size()).sum();
        int entries = first.stream().mapToInt(WorkScript.Step::entries).sum();
        int acts = second.stream().mapToInt(s -> s.ticks() + s.entries()).sum();
        WorkScript.Step end = second.getLast();
        assertEquals(end.judgement().judged().open().stream().map(n -> n.rule().id()).toList(), List.of());
        assertEquals(WorkScript.left(end.job()), List.of());
        assertTrue(acts * 100 <= (checks + entries) * 72, acts + " of " + (checks + entries));
    }

    /** A line that reads alike in two languages is what somebody typed, and nothing of ours. */
    @Test(dataProvider = "kinds")
    public void reportSpeaksOneLanguage(String kind) throws Exception {
        Job job = sound(kind).getLast().job();
        String typed = FILES.write(Format.JOB, job);
        List<String> english = said(job, Locale.ENGLISH);
        for (Locale language : ReportLanguage.shipped()) {
            if (language.equals(Locale.ENGLISH)) {
                continue;
            }
            List<String> other = said(job, language);
            assertEquals(other.size(), english.size());
            for (int i = 0; i < other.size(); i++) {
                String line = other.get(i);
                assertTrue(!line.equals(english.get(i)) || line.isEmpty() || typed.contains(line)
                        || line.matches("[\\d\u2212+,. kMΩ%]+") || line.startsWith("Code"),
                        language + ": " + line);
            }
        }
    }

    private static List<String> said(Job job, Locale language) {
        JobSummary s = JobSummary.of(job, Map.of(), new Words(language, TempUnit.CELSIUS));
        var all = new ArrayList<String>();
        all.add(s.line());
        List.of(s.wrong(), s.done(), s.open(), s.expect(), s.mind()).forEach(all::addAll);
        s.proofs().forEach(p -> all.addAll(List.of(p.name(), p.before(), p.after(), p.why())));
        return all;
    }

    @Test(dataProvider = "kinds")
    public void twinIsToldAtTheLineItCouldBeKnown(String kind) throws Exception {
        List<WorkScript.Step> steps = played(kind, true);
        List<WorkScript.Caught> caught = script(kind).caught();
        assertEquals(caught.size(), 1);
        assertEquals(WorkScript.told(caught.getFirst(), steps).orElse(0), caught.getFirst().lines(),
                caught.getFirst().rule());
    }
}
