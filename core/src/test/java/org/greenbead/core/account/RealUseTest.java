package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Rules fired by what a person does at the bench: kind of job, ticks, records. No fact is typed by name. */
public class RealUseTest {
    private static final RuleBook BOOK = RuleBook.shipped();

    private static Job job(JobKind kind) {
        Job usual = World.job(Attest.UNKNOWN);
        return usual.withBeads(Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")))
                .with(Facts.none().with("job.kind=" + kind.key()));
    }

    /** A record as the pages write it: {@code "rail name=core ohm=1200"}. */
    private static Job noted(Job job, String... records) {
        Job longer = job;
        for (String line : records) {
            String[] words = line.split(" ");
            var fields = new LinkedHashMap<String, Object>();
            for (int i = 1; i < words.length; i++) {
                String[] pair = words[i].split("=", 2);
                String text = pair[1].replace('_', ' ');
                fields.put(pair[0], text.matches("-?[0-9.]+")
                        ? (Object) Double.valueOf(text)
                        : text.equals("yes") || text.equals("no")
                                ? (Object) text.equals("yes")
                                : text.startsWith("[")
                                        ? List.of(pair[1].substring(1, pair[1].length() - 1))
                                        : text);
            }
            longer = longer.with(new Kept(longer.freeId(words[0]), words[0], Instant.EPOCH, "Isla", fields));
        }
        return longer;
    }

    private static Job ticked(Job job, Attest word, String... checks) {
        Job longer = job;
        for (String check : checks) {
            longer = longer.attest(check, word);
        }
        return longer;
    }

    private static List<String> raised(Job job) {
        var plan = World.plan(World.usualRecipe());
        return BOOK.check(JobFacts.of(job, plan.board(), plan.bench(), plan.recipe()),
                RuleBook.Settings.STANDARD).stream().map(n -> n.rule().id()).toList();
    }

    @DataProvider
    public Object[][] caught() {
        Job revive = job(JobKind.REVIVE);
        Job transplant = job(JobKind.TRANSPLANT);
        Job milled = noted(job(JobKind.MILLED), "chip role=storage", "fixture supports=4");
        Job memory = job(JobKind.MEMORY);
        return new Object[][]{
                // rule, the smallest job that fires it, the nearest that does not
                {"prove.rail-short-after-work", noted(revive, "rail name=core ohm=1200 after_ohm=0.4"),
                        noted(revive, "rail name=core ohm=1200 after_ohm=1190")},
                {"prove.rail-moved-by-work",
                        noted(revive, "rail name=core ohm=1200 lead_ohm=0.2 after_ohm=900"),
                        noted(revive, "rail name=core ohm=1200 lead_ohm=0.2 after_ohm=1150")},
                {"prove.rail-moved-by-work",
                        noted(revive, "rail name=core reference_ohm=100 ohm=1200 after_ohm=150"),
                        noted(revive, "rail name=core reference_ohm=100 ohm=1200 after_ohm=104")},
                {"prove.complaint-not-retested",
                        noted(revive, "symptom words=No_sound", "tested what=no_sound result=pass",
                                "tested what=no_sound result=fail"),
                        noted(revive, "symptom words=No_sound", "tested what=no_sound result=fail",
                                "tested what=No__Sound result=pass")},
                {"prove.configuration-unknown", noted(revive, "tested what=start result=pass"),
                        noted(revive, "tested what=start result=pass configuration=own_lead")},
                {"prove.starts-is-not-data", noted(transplant, "tested what=start result=pass"),
                        noted(transplant, "tested what=start result=pass data_proof=hash")},
                {"prove.memory-by-feel", noted(memory, "tested what=start result=pass"),
                        ticked(noted(memory, "tested what=start result=pass"), Attest.YES,
                                "memory_pass_done")},
                {"data.milled-away", milled, ticked(milled, Attest.YES, "data_copied", "copy_verified")},
                {"data.milled-away",
                        noted(milled, "intake data_value=irreplaceable consent=[data_loss]"),
                        noted(milled, "intake data_value=some consent=[data_loss]")},
                {"mill.not-set", milled,
                        ticked(milled, Attest.YES, "zero_set", "stop_depth_set", "dust_control_on")},
                {"safety.dust", ticked(milled, Attest.NO, "dust_control_on"),
                        ticked(milled, Attest.YES, "dust_control_on")},
                {"safety.lead-bare-fingers", ticked(revive, Attest.NO, "gloves_on"),
                        ticked(revive, Attest.YES, "gloves_on")},
                {"safety.biological", ticked(noted(revive, "condition contamination=[biological]"),
                        Attest.YES, "gloves_on"),
                        ticked(noted(revive, "condition contamination=[biological] mask=yes"),
                                Attest.YES, "gloves_on")},
                {"safety.heat-with-nobody-there", noted(revive, "bake what=bake c=110 attended=no"),
                        noted(revive, "bake what=bake c=110 attended=no cutoff=independent")},
                {"prove.corrosion-conducts",
                        noted(revive, "condition contamination=[corrosion]", "inspection strays=0"),
                        noted(revive, "condition contamination=[corrosion]", "chip leakage=none",
                                "inspection strays=0")},
                {"platform.more-than-it-bears", noted(memory, "chip capacity_gb=16"),
                        noted(memory, "chip capacity_gb=16", "unit max_capacity_gb=16")},
                {"transplant.donor-differs",
                        noted(transplant, "donor memory_type=MR revision=B", "stencil uses=1"),
                        noted(transplant, "donor memory_type=MR revision=B region=n matches=yes",
                                "stencil uses=1")},
                {"transplant.table-without-origin", noted(transplant, "stencil uses=1"),
                        noted(transplant, "stencil uses=1",
                                "transplant chip=U1 table=bench_table_2031-03")},
                {"decide.reballing-the-fault", noted(revive, "chip health=short"),
                        noted(revive, "chip health=good")},
                {"decide.reheat-sold-as-cure", noted(job(JobKind.REFLOW), "joint site=U1"),
                        noted(job(JobKind.REFLOW), "joint site=U1", "intake consent=[temporary]")}};
    }

    @Test(dataProvider = "caught")
    public void whatIsDoneAtTheBenchReachesTheRule(String rule, Job bad, Job good) {
        assertTrue(raised(bad).contains(rule), "not raised: " + raised(bad));
        assertFalse(raised(good).contains(rule), "raised wrongly");
    }

    /** Whatever a record, a tick or the kind says is put over nothing that a person typed. */
    @Test
    public void typedFactsOutrankWhatIsDerived() {
        Job typed = job(JobKind.MEMORY).with(Facts.none().with("job.kind=memory; job.touches_memory=no"));
        assertFalse(raised(noted(typed, "tested what=start result=pass")).contains("prove.memory-by-feel"));
    }

    /** The scale that stands at a flow is that of the station's own dial. */
    @Test
    public void stationSaysItsScale() {
        var plan = World.plan(World.usualRecipe());
        var dialled = plan.bench().with(org.greenbead.core.bench.AirDial.steps(8, 20, 120));
        assertEquals(JobFacts.of(job(JobKind.REVIVE), plan.board(), dialled, plan.recipe())
                .at("station.flow_scale").orElseThrow(), "level");
        Map<String, Object> alloy = Map.of("id", "Sn63Pb37", "solidus_c", 183.0, "liquidus_c", 183.0,
                "has_pb", true, "has_bi", false, "is_class_word", false);
        assertEquals(JobFacts.of(job(JobKind.REVIVE), plan.board(), plan.bench(), plan.recipe())
                .at("alloys.0").orElseThrow(), alloy);
    }
}
