package org.greenbead.core.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.greenbead.core.finding.Severity;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every rule with the smallest job that raises it and the neighbour that does not. */
public class RuleBookTest {
    private static final RuleBook BOOK = RuleBook.shipped();
    private static final Vocabulary VOCABULARY = Vocabulary.ofTheTrade();

    @DataProvider
    Object[][] rules() {
        return BOOK.rules().stream().map(r -> new Object[]{r.id()}).toArray(Object[][]::new);
    }

    private static Set<String> raised(Facts facts) {
        var ids = new HashSet<String>();
        BOOK.check(facts, RuleBook.Settings.STANDARD).forEach(n -> ids.add(n.rule().id()));
        return ids;
    }

    @Test(dataProvider = "rules")
    public void firesAndStaysSilent(String id) {
        BookRule rule = BOOK.rule(id).orElseThrow();
        Facts bad = Facts.none().with(rule.fires());
        Facts good = bad.with(rule.silent());
        assertEquals(VOCABULARY.misfits(bad), List.of());
        assertEquals(VOCABULARY.misfits(good), List.of());
        assertTrue(raised(bad).contains(id), "not raised by " + rule.fires());
        assertFalse(raised(good).contains(id), "raised by " + rule.fires() + "; " + rule.silent());
        assertFalse(raised(Facts.none()).contains(id), "raised by a job of which nothing is noted");
    }

    /** A smallest job that raises one stop raises no other: rules do not cry wolf over what nobody has noted. */
    @Test(dataProvider = "rules")
    public void neighbourOfAStopIsFreeOfStops(String id) {
        BookRule rule = BOOK.rule(id).orElseThrow();
        Facts good = Facts.none().with(rule.fires()).with(rule.silent());
        List<Noticed> stops = BOOK.check(good, RuleBook.Settings.STANDARD).stream()
                .filter(n -> n.rule().severity() == Severity.STOP).toList();
        assertEquals(stops.stream().map(n -> n.rule().id()).toList(), List.of());
    }

    @Test
    public void everyTrapNumberIsAnsweredAndEveryRuleIsNamedOnce() {
        var covered = new HashSet<String>();
        BOOK.rules().forEach(r -> covered.addAll(r.covers()));
        for (int t = 1; t <= 235; t++) {
            assertTrue(covered.contains("T%03d".formatted(t)), "T%03d".formatted(t));
        }
        assertEquals(BOOK.rules().stream().map(BookRule::id).distinct().count(), BOOK.rules().size());
        assertEquals(BOOK.rules().stream().map(BookRule::what).distinct().count(), BOOK.rules().size());
    }

    /** Of several parts that get too hot the one that gets the most too hot is named first, whatever the list says; the others by name. */
    @Test
    public void ofSeveralPlacesTheWorstIsNamedFirst() {
        Facts facts = Facts.none().with(
                "parts.0.id=J1; parts.0.distance_mm=9; parts.0.body_limit_c=230; parts.0.peak_c=239;"
                        + " parts.1.id=BT1; parts.1.distance_mm=6; parts.1.body_limit_c=60; parts.1.peak_c=217;"
                        + " parts.2.id=C3; parts.2.distance_mm=12; parts.2.body_limit_c=105; parts.2.peak_c=98;"
                        + " parts.3.id=Y1; parts.3.distance_mm=3; parts.3.body_limit_c=200; parts.3.peak_c=230");
        Grouped group = Grouped.of(BOOK.check(facts, RuleBook.Settings.STANDARD)).stream()
                .filter(g -> g.rule().id().equals("neighbour.over-its-limit")).findFirst().orElseThrow();
        assertEquals(group.places().stream().map(Noticed::at).toList(),
                List.of("/parts/1", "/parts/3", "/parts/0"));
        assertEquals(Wording.others(group), List.of("Y1", "J1"));
        assertThrows(IllegalArgumentException.class, () -> RuleBook.read("""
                [a.b]
                covers = 1
                phase = plan
                severity = care
                each = p: parts
                when = p.peak_c > 90
                worst = p.colour
                what = W
                why = Y
                remedy = R
                fires = parts.0.peak_c=91
                silent = parts.0.peak_c=89
                """));
    }

    @Test
    public void worstComesFirstThenTheOrderOfWork() {
        Facts facts = Facts.none().with(
                "balls.bridged=2; job.open_same_client=3; preflight.swabs_clean=no; balls.spread_pct=14; balls.count=9;"
                        + " plan.steps=[ball_check]; chip.pads=9");
        List<Noticed> found = BOOK.check(facts, RuleBook.Settings.STANDARD);
        assertEquals(found.stream().map(n -> n.rule().id()).toList(),
                List.of("identity.units-get-mixed", "beads.bridged",
                        "beads.no-number-proves-equal", "bench.dirty-swab"));
        for (int i = 1; i < found.size(); i++) {
            Severity before = found.get(i - 1).rule().severity();
            assertTrue(before.compareTo(found.get(i).rule().severity()) >= 0);
        }
        assertEquals(found.getFirst().rule().phase(), Phase.INTAKE);
    }

    @Test
    public void findingPointsToTheFact() {
        Facts two = Facts.none()
                .with("joints.0.site=U1; joints.1.site=U5; joints.1.bi_pct=7; joints.1.pb_pct=30");
        Noticed noticed = BOOK.check(two, RuleBook.Settings.STANDARD).stream()
                .filter(n -> n.rule().id().equals("alloy.bismuth-meets-lead")).findFirst().orElseThrow();
        assertEquals(noticed.at(), "/joints/1");
        assertEquals(noticed.values().getFirst(), new Noticed.Value("j.site", "U5"));
        Noticed empty = BOOK.check(Facts.none().with("chip.look_alikes=2"), RuleBook.Settings.STANDARD)
                .getFirst();
        assertEquals(empty.at(), "/chip/label");
    }

    @Test
    public void aBenchMayMoveAThreshold() {
        Facts facts = Facts.none().with("iron.dwell_s=4");
        assertTrue(raised(facts).contains("clean.iron-lingers"));
        var wider = new RuleBook.Settings(Map.of("clean.iron-lingers/dwell", 5.0));
        assertTrue(BOOK.check(facts, wider).isEmpty());
    }

    /** A gap of a reason that is no path would stand in the sentence as it is written. */
    @Test
    public void aReasonIsFilledWithPathsOnly() {
        String shipped = ruled("a.b", "It is {bake.c}, more than {$most}.");
        assertThrows(IllegalArgumentException.class, () -> RuleBook.read(shipped));
        assertEquals(RuleBook.read(ruled("a.b", "It is {bake.c}, more than it bears.")).rules().size(), 1);
    }

    @Test
    public void mutingNeedsAReasonAndNeverCoversAPerson() {
        Facts facts = Facts.none().with("balls.bridged=2; board.battery=fitted; plan.steps=[soak]");
        Judged before = Judged.of(BOOK, facts, RuleBook.Settings.STANDARD);
        Noticed bridged = before.open().stream().filter(n -> n.rule().id().equals("beads.bridged"))
                .findFirst().orElseThrow();
        Noticed battery = before.open().stream().filter(n -> n.rule().id().equals("safety.battery-connected"))
                .findFirst().orElseThrow();
        Facts waived = Judged.mute(facts, bridged, "scrap practice", "technician A", "2031-04-02T10:00Z");
        assertEquals(VOCABULARY.misfits(waived), List.of());
        Judged after = Judged.of(BOOK, waived, RuleBook.Settings.STANDARD);
        assertEquals(after.open().size(), before.open().size() - 1);
        assertEquals(after.muted().getFirst().reason(), "scrap practice");
        assertThrows(IllegalArgumentException.class, () -> Judged.mute(facts, bridged, "  ", "", ""));
        assertThrows(IllegalArgumentException.class, () -> Judged.mute(facts, battery, "in a hurry", "", ""));
        Facts forced = facts.with("waivers.0.rule=safety.battery-connected; waivers.0.reason=in a hurry");
        assertTrue(Judged.of(BOOK, forced, RuleBook.Settings.STANDARD).muted().isEmpty(),
                "written into the file it still stands");
        Facts one = Facts.none().with("job.data_value=irreplaceable; job.type=transplant");
        Noticed data = BOOK.check(one, RuleBook.Settings.STANDARD).stream()
                .filter(n -> n.rule().id().startsWith("transplant.")).findFirst()
                .orElseThrow();
        assertFalse(Judged.mutable(data, one));
        assertTrue(Judged.mutable(data, one.with("job.data_value=some")));
    }

    /** Worked checks of the formulas that rules call. */
    @Test
    public void formulasGiveTheirWorkedChecks() {
        var functions = new TradeFunctions(Facts.none().with("job.phase=4").spot());
        assertEquals(functions.call("past", List.of("prepare")), true);
        assertEquals(functions.call("past", List.of("lift")), false);
        assertEquals(functions.call("reached", List.of("lift")), true);
        assertEquals(functions.call("reached", List.of("clean")), false);
        assertEquals(functions.call("melts_at", List.of(205.0)), 12.0);
        assertEquals((Double) functions.call("holdoff_s", List.of(238.0, 163.0, 22.0, 75.0)), 32, 0.5);
        assertEquals((Double) functions.call("holdoff_s", List.of(238.0, 40.0, 22.0, 75.0)), 186, 0.5);
        assertEquals(functions.call("floor_life_h", List.of("3")), 168.0);
        assertEquals(functions.call("rated", List.of(2.2, 1604.0)), 250.0);
        assertEquals(
                new TradeFunctions(Facts.none().with("joints.0.solidus_c=217; joints.1.bi_pct=10").spot())
                        .call("lowest_solidus", List.of()),
                138.0);
        assertEquals(new TradeFunctions(Facts.none().with("joints.0.bi_pct=7; joints.0.pb_pct=29").spot())
                .call("lowest_solidus", List.of()), 96.0);
    }

    private static String ruled(String id, String why) {
        return "[" + id
                + "]\ncovers = 1\nphase = plan\nseverity = care\nwhen = bake.c > 120\nwhat = Too hot\nwhy = "
                + why
                + "\nremedy = Set it lower\nsource = Test.\nfires = bake.c=130\nsilent = bake.c=110\n";
    }
}
