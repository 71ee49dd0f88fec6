package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.BookRule;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/**
 * Every rule is fired, and kept silent, by a job that is worked: records, ticks, ways, what runs leave, kinds of job. The smallest job of a rule
 * is the one its own text gives, each fact said by whatever says it at a bench; where arithmetic says it, the records are written here.
 */
public class ReachedByHandsTest {
    private static final RuleBook BOOK = RuleBook.shipped();
    /** Where the heat beside the chip is rehearsed, for the rules that ask for it. */
    private static final Set<String> HEATED = Set.of("guessed", "soft", "heated");
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    /** Rules whose facts are reckoned: the records that fire them, and those beside them that do not. */
    private static final Map<String, String[]> RECKONED = new TreeMap<>();

    static {
        reckoned("air.circle-too-slow", "laps slowest_s=7 most_s=4", "laps slowest_s=3 most_s=4");
        reckoned("plan.second-chip-differs", "around 1 1 9 like",
                "around 1 1 9 like;plan differs_why=it_lies_over_the_power_plane");
        reckoned("units.pair-does-not-convert", "run_note deviation=235_C_(400_F)",
                "run_note deviation=235_C_(455_F)");
        reckoned("units.temperature-without-unit", "run_note deviation=350_degrees",
                "run_note deviation=350_degrees_C");
        reckoned("units.coarse-station-step", "station id=a set_c=350 read_c=361",
                "station id=a set_c=350 read_c=351");
        reckoned("alloy.class-word-for-alloy", "lot material=paste alloy=low-melt",
                "lot material=paste alloy=Sn42Bi58");
        reckoned("alloy.value-nobody-has", "lot material=paste alloy=Sn63Pb37 label_c=205",
                "lot material=paste alloy=Sn63Pb37 label_c=183");
        reckoned("alloy.paste-is-not-the-plan",
                "plan ball_alloy=Sn63Pb37;lot material=paste alloy=SAC305",
                "plan ball_alloy=Sn63Pb37;lot material=paste alloy=Sn63Pb37");
        reckoned("alloy.low-melt-not-proven-gone", "joint site=U1 alloy=Sn42Bi58",
                "joint site=U9 alloy=Sn42Bi58;joint site=U1 alloy=Sn42Bi58 wick_passes=2 flat_proof=yes");
        reckoned("alloy.bismuth-meets-lead",
                "plan ball_alloy=Sn63Pb37 diluent=Sn42Bi58;joint site=U1 wick_passes=0",
                "plan ball_alloy=Sn63Pb37 diluent=Sn63Pb37;joint site=U1 wick_passes=0");
        reckoned("beads.jar-left-open", "lot material=paste hours_out=9;stencil mismatch=0",
                "lot material=paste hours_out=9 trial_print=pass;stencil mismatch=0");
        reckoned("beads.dark-paste", "lot material=paste colour=dark",
                "lot material=paste colour=dark trial_print=pass");
        reckoned("beads.fresh-paste-slides", "lot material=paste dryness=fresh",
                "lot material=paste dryness=dry");
        reckoned("moisture.bake-without-end", "bake what=bake c=110 start=2031-04-02T08:00",
                "bake what=bake c=110 start=2031-04-02T08:00 end=2031-04-03T08:00");
        reckoned("exposure.heats-add-up", "exposure part=U1 above_s=460", "exposure part=U1 above_s=90");
        reckoned("intake.photos-missing", "picture view=whole;plan duty=fixed",
                "picture view=whole;picture view=board_top;picture view=board_underside;picture view=serial;plan duty=fixed");
        reckoned("neighbour.no-photo-after",
                "run bead=lift_run kind=lift outcome=proven proven=yes;neighbour id=C1 distance_mm=1 before=straight;iron set_c=300",
                "run bead=lift_run kind=lift outcome=proven proven=yes;neighbour id=C1 distance_mm=1 before=straight after=straight;iron set_c=300");
        reckoned("parts.off-and-unrecorded", "small_part id=R1 state=found",
                "small_part id=R1 state=found tray_id=4 value=10k photo=yes");
        reckoned("parts.called-equal-on-one-reading", "small_part id=R1 state=replaced reading_1=10",
                "small_part id=R1 state=replaced reading_1=10 reading_2=10.1");
        reckoned("prepare.cables-still-in", "connector id=J1 undone=no",
                "connector id=J1 undone=yes pull=up");
        reckoned("board.bent", "fixture bow_mm=2.5 supports=4 underside_max_mm=1",
                "fixture bow_mm=0.1 supports=4 underside_max_mm=1");
        reckoned("prove.gap-met-with-force",
                "inspection gap_n_mm=0.1 gap_e_mm=0.4 gap_s_mm=0.4 gap_w_mm=0.4 disposition=seen",
                "inspection gap_n_mm=0.1 gap_e_mm=0.4 gap_s_mm=0.4 gap_w_mm=0.4 disposition=seen obstruction_check=yes");
        reckoned("prove.bad-joint-kept", "inspection strays=2", "inspection strays=0");
        reckoned("prove.finding-left-open", "inspection strays=2",
                "inspection strays=2 disposition=taken_out");
        reckoned("beads.fault-on-both-sides", "balls count=9 faults=B3_missing;pads faults=B3_glue",
                "balls count=9 faults=B3_missing;pads faults=C3_glue");
        reckoned("parts.gone-on-the-photo", "comparison before=a after=b lost=1",
                "comparison before=a after=b lost=1;small_part id=C3 state=lost");
        reckoned("shield.torn", "covering what=shield done=cut",
                "covering what=shield done=cut pad_check=whole");
        reckoned("close.cut-not-disclosed", "covering what=shield done=cut disclosed=no",
                "covering what=shield done=cut disclosed=yes");
        reckoned("prepare.corner-glue", "covering what=glue where=corners;run bead=lift_run kind=lift",
                "covering what=glue where=corners done=removed;run bead=lift_run kind=lift");
        reckoned("close.old-compound", "covering what=heat_compound done=removed",
                "covering what=heat_compound done=replaced");
        reckoned("bench.kit-missing", "kit item=tweezers", "tick kit_complete");
        reckoned("intake.changed-before-in-vain", "condition prior_work=[reheated];symptom words=dark",
                "condition prior_work=[reheated];symptom words=dark reproduced=yes");
        reckoned("prove.one-current-judged", "baseline settle_a=0.2 unit_state=on",
                "baseline settle_a=0.2 peak_a=0.5 unit_state=on");
        reckoned("decide.code-read-by-guess", "baseline codes=E4",
                "baseline codes=E4 code_provenance=handbook");
        reckoned("prove.rail-waved-through", "rail name=a ohm=14 reference_ohm=10;leak limit=5_Pa",
                "rail name=a ohm=14 reference_ohm=10 second_ohm=14;leak limit=5_Pa");
        reckoned("prove.start-departs", "curve taken=after outcome=departs stage=3 how=stays",
                "curve taken=after outcome=alike");
        reckoned("prove.start-left-open", "curve taken=after outcome=unfinished",
                "curve taken=after outcome=alike");
        reckoned("prove.unplugged-not-tried", "connector id=J4 undone=yes;disclosure done=balls",
                "connector id=J4 undone=yes;tested what=loom_on_J4 result=pass;disclosure done=balls");
        reckoned("prove.code-stands", "baseline codes=3-1 codes_after=3-1",
                "baseline codes=3-1 codes_after=none");
        reckoned("clean.pad-without-contact", "pad site=C4 kind=lifted carries=only continuity=no",
                "pad site=C4 kind=lifted carries=only continuity=yes");
        reckoned("clean.pads-shorted", "pad site=B2 kind=bridged leak_ohm=0.3",
                "pad site=B2 kind=bridged leak_ohm=40000");
        reckoned("clean.pads-not-measured", "pads faults=C4_missing_pad_[CLK] photo=p",
                "pad site=C4 kind=missing carries=only net=CLK continuity=yes bond=wire");
        reckoned("clean.pads-leak", "pad site=B2 leak_ohm=40000", "pad site=B2 leak_ohm=4000000");
        reckoned("clean.bond-not-covered", "pad site=C4 kind=lifted net=CLK continuity=yes bond=wire",
                "pad site=C4 kind=lifted net=CLK continuity=yes bond=wire mask=green cure=lamp");
        reckoned("prove.rail-short-after-work", "rail name=a ohm=14 after_ohm=0.1",
                "rail name=a ohm=14 after_ohm=14");
        reckoned("prove.rail-moved-by-work", "rail name=a ohm=14 after_ohm=17",
                "rail name=a ohm=14 after_ohm=14");
        reckoned("prove.rail-unsure", "rail name=a ohm=0.4 after_ohm=40",
                "rail name=a ohm=0.4 after_ohm=40 reference_ohm=38");
        reckoned("prove.rails-not-all", "rail name=a ohm=14 after_ohm=14;rail name=b ohm=9",
                "rail name=a ohm=14 after_ohm=14;rail name=b ohm=9 after_ohm=9");
        reckoned("intake.condition-not-noted", "picture view=whole;plan duty=fixed",
                "picture view=whole;condition seal=whole state=good missing_noted=no;plan duty=fixed");
        reckoned("strap.more-than-the-obvious", "chip vendor=A vendor_before=B",
                "chip vendor=A vendor_before=A");
        reckoned("transplant.moves-what-must-stay", "transplant chip=U5 never=yes moves=yes",
                "transplant chip=U5 never=yes moves=no");
        reckoned("transplant.set-not-whole", "transplant chip=U5 must=yes moves=no",
                "transplant chip=U5 must=yes moves=yes");
        reckoned("stack.a-face-forgotten", "chip layers=2;face face=a done=yes;balls count=9",
                "chip layers=2;face face=a done=yes;face face=b done=yes;face face=c done=yes;face face=d done=yes;balls count=9");
        reckoned("prove.complaint-not-retested", "symptom words=dark;tested what=light result=pass",
                "symptom words=dark;tested what=dark result=pass");
        reckoned("prove.only-the-headline", "tested what=radio result=not_tested",
                "tested what=radio result=pass");
        reckoned("prove.configuration-unknown", "tested what=a result=pass",
                "tested what=a result=pass configuration=own_lead");
        reckoned("prove.tested-before-the-last-heat",
                "tested what=ping result=pass;run bead=seat_run kind=seat outcome=proven proven=yes;disclosure done=balls",
                "run bead=seat_run kind=seat outcome=proven proven=yes;tested what=ping result=pass;disclosure done=balls");
        reckoned("prove.warmth-not-tried-again",
                "symptom words=dark changes_with=[warm];tested what=a result=pass",
                "symptom words=dark changes_with=[warm];tested what=a result=pass cycles=4");
        reckoned("prove.short-test", "tested what=a result=pass minutes=2",
                "tested what=a result=pass minutes=30");
        reckoned("prove.memory-by-feel", "MEMORY;tested what=a result=pass",
                "MEMORY;tested what=a result=pass memory_pass=yes");
        reckoned("safety.first-power", "tested what=a result=pass;baseline supply_v=12",
                "tested what=a result=pass;baseline limit_a=0.5");
        reckoned("prove.enclosure-leaks",
                "leak taken=after p0_kpa=-15 p1_kpa=-13 t0_c=22 t1_c=22 hold_s=300 limit_pa_s=2",
                "leak taken=after p0_kpa=-15 p1_kpa=-14.98 t0_c=22 t1_c=22 hold_s=600 limit_pa_s=2");
        reckoned("prove.leak-not-told",
                "leak taken=after p0_kpa=-15 p1_kpa=-14.95 t0_c=22 t1_c=22 hold_s=40 limit_pa_s=2",
                "leak taken=after p0_kpa=-15 p1_kpa=-14.98 t0_c=22 t1_c=22 hold_s=600 limit_pa_s=2");
        reckoned("close.screw-over-its-thread", "fastening torque=0.4_Nm thread_mm=2 into=metal",
                "fastening torque=0.15_Nm thread_mm=2 into=metal");
        reckoned("close.pressed-otherwise-than-the-label",
                "enclosure press_kg=10 press_cm2=105 press_label_kpa=37",
                "enclosure press_kg=40 press_cm2=105 press_label_kpa=37");
        reckoned("prove.leak-test-void", "leak t0_c=20 t1_c=20 settle_min=1 settle_needed_min=1",
                "leak t0_c=20 t1_c=20 settle_min=1 settle_needed_min=1 limit=5_Pa");
        reckoned("cool.power-on-warm-board",
                "run bead=seat_run kind=seat outcome=proven proven=yes end_c=150;tested what=a result=pass",
                "run bead=seat_run kind=seat outcome=proven proven=yes end_c=35;tested what=a result=pass");
        reckoned("lift.mask-pulled-hot",
                "run bead=lift_run kind=lift outcome=proven proven=yes end_c=150;covering what=mask done=removed",
                "run bead=lift_run kind=lift outcome=proven proven=yes end_c=35;covering what=mask done=removed");
        reckoned("close.untested",
                "run bead=seat_run kind=seat outcome=proven proven=yes;disclosure done=all",
                "run bead=seat_run kind=seat outcome=proven proven=yes;disclosure done=all;tested what=a result=pass");
        reckoned("close.cured-what-was-never-shown",
                "symptom words=dark reproduced=no;tested what=dark result=pass",
                "symptom words=dark reproduced=yes;tested what=dark result=pass");
        reckoned("record.better-without-a-figure", "disclosure better=yes",
                "disclosure better=yes;rail name=a ohm=3");
        reckoned("record.not-repeatable", "run_note nozzle=n",
                "run_note nozzle=n distance_mm=8 motion=circling");
        reckoned("decide.labour-outruns-the-part",
                "cost what=work kind=labour attended_min=90 rate=60;cost what=chip kind=part price=20",
                "cost what=work kind=labour attended_min=10 rate=60;cost what=chip kind=part price=90");
        reckoned("intake.old-corrosion", "condition contamination=[liquid];inspection strays=0",
                "condition contamination=[liquid] site_check=yes;inspection strays=0");
        reckoned("identity.harvested-untested", "chip origin=harvested",
                "chip origin=harvested;donor tested=yes");
        reckoned("chip.heat-class-unknown", "run bead=lift_run kind=lift top_c=290",
                "run bead=lift_run kind=lift top_c=200");
        reckoned("air.swept-and-nobody-looked",
                "run bead=lift_run kind=lift outcome=proven;run_note speed_ms=30;picture view=neighbours;iron set_c=300",
                "run bead=lift_run kind=lift outcome=proven;run_note speed_ms=30;picture view=neighbours;picture view=neighbours_after;iron set_c=300");
        reckoned("clean.pressed-into-pads", "way levelling wick;inspection strays=0",
                "way levelling wick;picture view=pads_clean;inspection strays=0");
        reckoned("clean.humps-left", "way levelling drag;inspection strays=0",
                "way levelling drag;picture view=pads_clean;inspection strays=0");
        reckoned("beads.metal-spreader", "way spreader metal", "way spreader plastic");
        reckoned("beads.flux-under-and-over", "way ball_route paste;way flux_amount plenty",
                "way ball_route paste;way flux_amount thin");
        reckoned("seat.flux-amount", "way flux_amount plenty", "way flux_amount thin");
        reckoned("platform.more-than-it-bears", "MEMORY;chip capacity_gb=16;stencil uses=1",
                "MEMORY;chip capacity_gb=16;unit max_capacity_gb=32;stencil uses=1");
        reckoned("data.milled-away", "MILLED;chip role=storage;fixture supports=4",
                "MILLED;chip role=storage;copy of=it verified=yes;fixture supports=4");

        reckoned("air.carries-off-small-parts",
                "small_part id=R9 size_code=201;neighbour id=R9 distance_mm=4;run_note speed_ms=28",
                "small_part id=R9 size_code=201;neighbour id=R9 distance_mm=4;run_note speed_ms=14");
        reckoned("air.no-nozzle-dense-board", "LOOSE;way nozzle none;run_note speed_ms=25",
                "LOOSE;way nozzle none;run_note speed_ms=14");
        reckoned("alloy.bought-balls-unnamed", "REPLACE;chip origin=new;fixture supports=3",
                "REPLACE;chip origin=new ball_alloy=SAC305;fixture supports=3");
        reckoned("alloy.factory-joints-guessed", "guessed", "usual");
        reckoned("alloy.neighbour-guessed", "guessed", "heated");
        reckoned("neighbour.joints-melt", "soft", "heated");
        reckoned("alloy.release-warm-melts-balls", "plan ball_alloy=Sn42Bi58;forming release_c=130",
                "plan ball_alloy=Sn63Pb37;forming release_c=130");
        reckoned("alloy.sold-by-its-top", "lot material=paste alloy=mid-178 label_c=178",
                "lot material=paste alloy=Sn63Pb37 label_c=183");
        reckoned("beads.crumb-keeps-a-ball", "run bead=bead_form kind=form",
                "picture view=stencil;run bead=bead_form kind=form");
        reckoned("beads.flux-under-sphere-stencil", "way ball_route spheres;run bead=spheres_melt kind=form",
                "way ball_route spheres;tick underside_clean;run bead=spheres_melt kind=form");
        reckoned("beads.tip-side-unknown", "way ball_route spheres;run bead=spheres_melt kind=form",
                "way ball_route spheres;spheres tilt_side=spout;run bead=spheres_melt kind=form");
        reckoned("beads.nozzle-drops-on-paste", "run_note approach_s=3", "run_note approach_s=14");
        reckoned("board.rests-on-its-parts", "noboard;fixture supports=4",
                "noboard;fixture supports=4 underside_max_mm=2");
        reckoned("clean.hotter-instead-of-contact", "iron no_melt_s=8 set_c=420",
                "iron no_melt_s=2 set_c=420");
        reckoned("clean.pads-loose", "pad site=A1 kind=lifted", "pad site=A1 kind=lifted net=GND");
        reckoned("close.screws-driven-hard", "screw hole=A in=yes",
                "screw hole=A in=yes;fastening torque=0.4_Nm two_stage=yes");
        reckoned("cool.fan-too-early", "run_note fan_from_c=200", "run_note fan_from_c=100");
        reckoned("cool.moved-while-liquid", "run bead=seat_run kind=seat moved_c=205 proven=yes",
                "run bead=seat_run kind=seat moved_c=95 proven=yes");
        reckoned("data.lifted-before-copied", "STORAGE;done lift_run;done decide_copy",
                "STORAGE;done decide_copy;done lift_run");
        reckoned("order.washed-before-verified", "done clean_board;done intake_record",
                "done intake_record;done clean_board");
        reckoned("order.brush-with-stencil-on", "done bead_shape;done bead_form;done bead_count",
                "done bead_form;done bead_shape;done bead_count");
        reckoned("order.tightened-before-aligned",
                "way ball_route spheres;done spheres_flux;done spheres_seat",
                "way ball_route spheres;done spheres_seat;done spheres_flux");
        reckoned("order.sealed-before-tested", "way refill yes;done prove_underfill;done prove_rails",
                "way refill yes;done prove_rails;done prove_underfill");
        reckoned("decide.judged-by-a-progress-bar", "diagnosis rests_on=[pattern]",
                "diagnosis rests_on=[pattern,rail]");
        reckoned("decide.on-the-clients-word", "diagnosis origin=client;symptom words=dark",
                "diagnosis origin=client;symptom words=dark reproduced=yes");
        reckoned("decide.they-all-do-that", "diagnosis cause=moisture origin=habit",
                "diagnosis cause=moisture origin=own_test");
        reckoned("decide.wet-chip-presumed-good", "condition contamination=[liquid]",
                "condition contamination=[liquid];chip health_test=meter");
        reckoned("decide.reheat-without-flux", "REFLOW;no flux_under", "REFLOW;tick flux_under");
        reckoned("intake.bent-board-cracked-chip", "condition deformed=yes",
                "condition deformed=yes;chip crack_check=none");
        reckoned("donor.consumed-untested", "TRANSPLANT;chip origin=harvested",
                "TRANSPLANT;chip origin=harvested;donor tested=yes");
        reckoned("heat.over-the-ceiling-at-seat",
                "run bead=seat_run kind=seat air_c=390 air_planned_c=360",
                "run bead=seat_run kind=seat air_c=360 air_planned_c=360");
        reckoned("close.strand-not-at-its-end", "around 1 0 0 open", "around 1 0 0 done");
        reckoned("identity.chips-look-alike", "around 1 2 3", "around 1 2 3;chip label=GB-0042-3");
        reckoned("identity.units-get-mixed", "around 2 0 3",
                "around 2 0 3;intake label=T-4;picture view=board_top");
        reckoned("practice.first-try-on-a-client", "around 1 0 0;intake client=owner data_value=none",
                "around 1 0 2;intake client=owner data_value=none");
        reckoned("practice.one-chance-no-rehearsal", "around 1 0 0;intake data_value=irreplaceable",
                "around 1 0 2;intake data_value=irreplaceable");
        reckoned("practice.hard-alloy-hard-job", "around 1 0 0;plan ball_alloy=SAC305;chip pads=528",
                "around 1 0 2;plan ball_alloy=SAC305;chip pads=528");
        reckoned("practice.dummy-ticked-only", "TRANSPLANT;tick dummy_run_done",
                "TRANSPLANT;tick dummy_run_done;practice class=15_mm result=good");
        reckoned("shield.heat-by-a-beginner", "around 1 0 0;way shields heat",
                "around 1 0 9;way shields heat");
        reckoned("identity.refitted-turned", "run bead=seat_run kind=seat",
                "run bead=seat_run kind=seat;orientation matches=yes");
        reckoned("seat.dirty-pads-no-flux", "run bead=seat_run kind=seat",
                "run bead=seat_run kind=seat;picture view=pads_clean;pads residue=none");
        reckoned("moisture.age-unknown", "fixture supports=4", "fixture supports=4;chip msl=3 open_days=1");
        reckoned("moisture.no-drying-decision", "chip msl=3 open_days=20", "chip msl=3 open_days=2");
        reckoned("prove.connector-one-way", "connector id=J1 reversible=yes;tested what=a result=pass",
                "connector id=J1 reversible=yes both_ways=yes;tested what=a result=pass");
        reckoned("prove.starts-is-not-data", "TRANSPLANT;tested what=a result=pass",
                "TRANSPLANT;tested what=a result=pass data_proof=hash");
        reckoned("safety.stored-charge", "unit mains=yes;power discharge_v=40",
                "unit mains=yes;power discharge_v=3");
        reckoned("stencil.for-another-part", "stencil other_part=yes", "stencil other_part=no");
        reckoned("stencil.opening-blocked", "stencil blocked=yes", "stencil blocked=no");
        reckoned("alloy.oven-over-old-joint", "joint site=U4 alloy=Sn42Bi58; bake what=bake c=135",
                "joint site=U4 alloy=Sn42Bi58; bake what=bake c=100");
        reckoned("alloy.oven-softens-old-joint", "joint site=U4 alloy=Sn42Bi58; bake what=bake c=125",
                "joint site=U4 alloy=Sn42Bi58; bake what=bake c=100");
        reckoned("prove.cure-not-as-label", "bake what=cure c=60 label_c=80 label_min=30",
                "bake what=cure c=80 label_c=80 label_min=30");
        reckoned("safety.heat-with-nobody-there", "bake what=bake c=110 attended=no",
                "bake what=bake c=110 attended=yes");
        reckoned("safety.lead-bare-fingers", "no gloves_on", "tick gloves_on");
        reckoned("screws.lengths-not-mapped", "screw hole=A out=yes;iron set_c=300",
                "screw hole=A out=yes length_mm=6;iron set_c=300");
        reckoned("screws.out-is-not-in",
                "screw hole=A out=yes in=yes;screw hole=B out=yes in=no;disclosure done=x",
                "screw hole=A out=yes in=yes;screw hole=B out=yes in=yes;disclosure done=x");
        reckoned("seat.beyond-its-outline", "inspection offset_mm=0.6", "inspection offset_mm=0.05");
        reckoned("stack.partner-of-another-job", "chip layers=2 partner_job=SB-999", "chip layers=2");
        // The recipe in hand.
        reckoned("alloy.plan-does-not-melt", "goal=190", "usual");
        reckoned("heat.stage-without-joint-target", "goal=", "usual");
        reckoned("heat.large-chip-without-bottom-heat", "noheater", "usual");
        reckoned("air.very-hot-on-cold-board",
                "noheater,air=430;neighbour id=X distance_mm=5 kind=plastic",
                "air=430;neighbour id=X distance_mm=5 kind=plastic");
        reckoned("cool.not-planned", "nocool", "usual");
        reckoned("heat.no-probe-at-all", "noprobes", "usual");
        reckoned("alloy.board-heat-over-old-joint", "soak=190", "soak=120");
        reckoned("alloy.board-heat-softens-old-joint", "soak=168", "soak=120");
        reckoned("probe.not-where-the-target-is", "probed=board", "probed=joint");
        reckoned("heat.lift-setting-kept-for-seat", "same;chip ball_alloy=Sn42Bi58",
                "chip ball_alloy=Sn42Bi58");
    }

    private static void reckoned(String rule, String fires, String silent) {
        RECKONED.put(rule, new String[]{fires, silent});
    }

    private static List<String> raised(Job job, String lines) {
        Optional<Around> around = java.util.Arrays.stream(lines.split(";")).map(String::strip)
                .filter(l -> l.startsWith("around ")).map(l -> l.split(" "))
                .map(w -> new Around(Integer.parseInt(w[1]), Integer.parseInt(w[2]),
                        Practice.ofAny(Integer.parseInt(w[3])),
                        Optional.empty(), Map.of(),
                        w.length > 4
                                ? w[4].equals("like") ? like(job) : strand(job, w[4].equals("done"))
                                : List.of()))
                .findFirst();
        Optional<RunPlan> plan = lines.startsWith("noboard")
                ? Optional.empty()
                : Optional.of(recipe(lines.split(";")[0]).with(job));
        Optional<Rehearsal> heat = plan.filter(p -> HEATED.contains(lines.split(";")[0]))
                .map(p -> Rehearsal.of(p, () -> false));
        return Judgement.of(job, plan, around, heat, BOOK, RuleBook.Settings.STANDARD).judged()
                .open().stream().map(n -> n.rule().id()).toList();
    }

    /** The like chip in the other half of the job, lifted with other air. */
    private static List<Job> like(Job job) {
        return List.of(new Job(job.id() + "-2", job.title(), job.complaint(), job.customer(),
                PLAN.board().id(), job.target(), job.bench(), job.beads())
                .with(new Kept("run-1", "run", Instant.EPOCH, "", Map.of("bead", "lift_run", "kind", "lift",
                        "outcome", "proven", "peak_air_c", 355.0, "heater_c", 240.0))));
    }

    /** A further chip of the job, worked or not. */
    private static List<Job> strand(Job job, boolean done) {
        var board = World.board(World.processor("Sn63Pb37", 0, 1),
                World.neighbour("U2", Side.TOP, 60, 58, "Sn63Pb37"));
        Job strand = Strands.begin(job, List.of(), board, "U2", JobKind.HARVEST,
                new HouseRoute(JobKind.HARVEST, List.of()), Optional.empty());
        for (Bead bead : strand.beads()) {
            strand = strand.with(bead.id(), done ? BeadState.GREEN : BeadState.OPEN);
        }
        return List.of(strand);
    }

    /** The usual plan with another recipe or bench: {@code noheater,air=430}. */
    private static RunPlan recipe(String words) {
        Recipe recipe = PLAN.recipe();
        Bench bench = PLAN.bench();
        for (String word : words.split(",")) {
            String[] pair = word.split("=", 2);
            var stages = new ArrayList<Stage>();
            for (Stage s : recipe.stages()) {
                boolean peak = s.purpose() == Stage.Purpose.PEAK;
                boolean soak = s.purpose() == Stage.Purpose.SOAK;
                stages.add(switch (pair[0]) {
                    case "goal" -> peak ? aimed(s, pair[1], s.air()) : s;
                    case "noheater" -> s.withHeater(Optional.empty());
                    case "air" -> s.air().isPresent()
                            ? s.withAir(s.air().map(a -> new AirSetting(Double.parseDouble(pair[1]),
                                    a.flowLpm(), a.nozzleMm(), a.distanceMm(), a.circleMm())))
                            : s;
                    case "soak" -> soak ? aimed(s, pair[1], Optional.empty()) : s;
                    case "probed" -> peak
                            ? s.withEnd(new StageEnd.ProbeReaches(pair[1] + "_probe", 220, 5))
                            : s;
                    default -> s;
                });
            }
            if (pair[0].equals("nocool")) {
                stages.removeIf(s -> s.purpose() == Stage.Purpose.COOL);
            }
            recipe = new Recipe(recipe.id(), recipe.title(), stages, recipe.limits());
            if (pair[0].equals("probed")) {
                bench = new Bench(bench.id(), bench.title(), bench.ambientC(), bench.heater(), bench.air(),
                        List.of(new ProbePlace(pair[1] + "_probe",
                                ProbePlace.Role.valueOf(pair[1].toUpperCase(java.util.Locale.ROOT)), 1,
                                Side.TOP, PLAN.target().centreMm())),
                        bench.calibrations());
            }
            if (pair[0].equals("noprobes")) {
                bench = new Bench(bench.id(), bench.title(), bench.ambientC(), bench.heater(), bench.air(),
                        List.of(), bench.calibrations());
            }
        }
        return new RunPlan(PLAN.task(), PLAN.job(), PLAN.bead(),
                switch (words) {
                    case "guessed" -> guessed(PLAN.board());
                    case "soft" -> soft(PLAN.board());
                    default -> PLAN.board();
                }, bench, recipe);
    }

    /** As a board is begun by its sizes: nobody has said what its chips are soldered with. */
    private static Board guessed(Board known) {
        Board board = known;
        for (Chip chip : known.chips()) {
            var assumed = new ArrayList<>(board.assumed());
            assumed.add(Assumed.alloyOf(chip.name()));
            board = board.put(chip, assumed);
        }
        return board;
    }

    /** Every other chip stands on low-melt solder. */
    private static Board soft(Board known) {
        Board board = known;
        for (Chip chip : known.chips()) {
            if (!chip.name().equals(PLAN.target().name())) {
                board = board.put(chip.soldered(Alloys.require("Sn42Bi58")), board.assumed());
            }
        }
        return board;
    }

    private static Stage aimed(Stage s, String goal, Optional<AirSetting> air) {
        return new Stage(s.name(), s.purpose(), s.heaterC(), air,
                goal.isEmpty() ? Optional.empty() : Optional.of(Double.valueOf(goal)), s.end(), s.latestS());
    }

    private static Job job(JobKind kind, int phase) {
        Job open = World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")))
                .with(Facts.none().with("job.kind=" + kind.key()));
        return open.withBeads(open.beads().stream()
                .map(b -> b.phase().ordinal() < phase ? b.as(BeadState.GREEN) : b).toList());
    }

    /** Records as people write them; {@code _} is a blank in a text, a capital word the kind of the job. */
    private static Job written(Job job, String lines) {
        Job longer = job;
        Instant now = Instant.EPOCH;
        for (String line : lines.split(";")) {
            String[] words = line.strip().split(" ");
            if (words[0].equals("tick") || words[0].equals("no")) {
                longer = longer.record(words[1], words[0].equals("no") ? Attest.NO : Attest.YES);
            } else if (words[0].equals("done")) {
                Job before = longer;
                now = now.plusSeconds(60);
                longer = Account.noted(Optional.of(before), before.with(words[1], BeadState.GREEN), now, "");
            } else if (words[0].equals("same")) {
                longer = longer.withBeads(longer.beads().stream()
                        .map(b -> b.recipe().isPresent()
                                ? new Bead(b.id(), b.phase(), b.kind(), b.gate(), b.state(), b.checks(),
                                        Optional.of("one"))
                                : b)
                        .toList());
            } else if (RecordTypes.shipped().find(words[0]).isEmpty() && !words[0].equals("way")) {
                continue;
            } else if (words[0].equals("way")) {
                School school = Schools.shipped().find(words[1]).orElseThrow();
                longer = Schools.shipped().choose(longer, school, words[2], "so", Instant.EPOCH, "");
            } else {
                var fields = new LinkedHashMap<String, Object>();
                RecordType type = RecordTypes.shipped().require(words[0]);
                for (int i = 1; i < words.length; i++) {
                    String[] pair = words[i].split("=", 2);
                    fields.put(pair[0], value(type.item(pair[0]).orElseThrow(), pair[1]));
                }
                longer = longer.with(new Kept(longer.freeId(words[0]), words[0], Instant.EPOCH, "", fields));
            }
        }
        return longer;
    }

    private static Object value(RecordType.Item item, String text) {
        return switch (item.field().kind()) {
            case NUMBER -> Double.valueOf(text);
            case YES_NO -> text.equals("yes");
            case WORDS -> List.of(text.replaceAll("[\\[\\]]", "").split(","));
            case WORD -> text;
            default -> item.name().equals("bead") ? text : text.replace('_', ' ');
        };
    }

    /** Says facts by whatever says them; empty where some fact is said by nothing that a person or a run does. */
    private static Optional<Job> said(Job job, Facts facts) {
        Job longer = job;
        var records = new TreeMap<String, Map<String, Object>>();
        for (Map.Entry<String, Object> entity : facts.root().entrySet()) {
            if (entity.getValue() instanceof List<?> items) {
                for (int i = 0; i < items.size(); i++) {
                    for (Map.Entry<?, ?> field : ((Map<?, ?>) items.get(i)).entrySet()) {
                        if (!record(records, entity.getKey() + "." + field.getKey(), field.getValue(),
                                Integer.toString(i))) {
                            return Optional.empty();
                        }
                    }
                }
                continue;
            }
            for (Map.Entry<?, ?> field : ((Map<?, ?>) entity.getValue()).entrySet()) {
                String path = entity.getKey() + "." + field.getKey();
                if (path.equals("plan.steps") || path.equals("job.type") || path.equals("job.kind")) {
                    continue;
                }
                if (record(records, path, field.getValue(), "")) {
                    continue;
                }
                Optional<Job> ticked = ticked(longer, path, field.getValue());
                if (ticked.isEmpty()) {
                    return Optional.empty();
                }
                longer = ticked.get();
            }
        }
        for (Map.Entry<String, Map<String, Object>> record : records.entrySet()) {
            String type = record.getKey().split(" ")[0];
            longer = longer.with(
                    new Kept(longer.freeId(type), type, Instant.EPOCH, "", record.getValue()));
        }
        return Optional.of(longer);
    }

    private static boolean record(Map<String, Map<String, Object>> records, String path, Object value,
            String item) {
        for (RecordType type : RecordTypes.shipped().all()) {
            for (RecordType.Item field : type.fields()) {
                if (field.fact().filter(path::equals).isPresent()) {
                    Map<String, Object> fields = records.computeIfAbsent(type.id() + " " + item,
                            k -> new LinkedHashMap<>());
                    if (type.many() && type.fields().getFirst().fact().isPresent()
                            && type.fields().getFirst().field().kind() == Vocabulary.Kind.TEXT) {
                        fields.putIfAbsent(type.key(), "x" + item);
                    }
                    fields.put(field.name(), value);
                    return true;
                }
            }
        }
        return false;
    }

    private static Optional<Job> ticked(Job job, String path, Object value) {
        for (String check : CheckFacts.shipped().checks()) {
            for (Attest word : List.of(Attest.YES, Attest.NO)) {
                if (CheckFacts.shipped().states(check, word).at(path).filter(value::equals).isPresent()) {
                    return Optional.of(job.record(check, word));
                }
            }
        }
        for (School school : Schools.shipped().all()) {
            for (School.Choice choice : school.choices()) {
                if (Facts.none().with(choice.facts()).at(path).filter(value::equals).isPresent()) {
                    return Optional.of(job.with(new Kept(job.freeId("school"), "school", Instant.EPOCH, "",
                            Map.of("point", school.id(), "choice", choice.id()))));
                }
            }
        }
        return Optional.empty();
    }

    /** Fires and stays silent in some kind of job at some point of its route. */
    private static boolean reached(BookRule rule) {
        String[] reckoned = RECKONED.get(rule.id());
        var kinds = new ArrayList<>(List.of(JobKind.REVIVE, JobKind.REPLACE, JobKind.REFLOW,
                JobKind.TRANSPLANT, JobKind.MEMORY, JobKind.MILLED, JobKind.PACKAGE, JobKind.HARVEST,
                JobKind.BOARDS, JobKind.LOOSE, JobKind.STORAGE));
        for (JobKind kind : kinds) {
            for (int phase : new int[]{0, 9, 4}) {
                if (phase > 0 && lines(rule, 0).matches(".*(done |way ball_route|way refill).*")) {
                    continue;
                }
                Job job = job(kind, phase);
                Optional<Job> bad;
                Optional<Job> good;
                if (reckoned != null) {
                    if (reckoned[0].matches("[A-Z]+;.*") && !reckoned[0].startsWith(kind.name())) {
                        continue;
                    }
                    bad = Optional.of(written(job, reckoned[0]));
                    good = Optional.of(written(job, reckoned[1]));
                } else {
                    Facts fires = Facts.none().with(rule.fires());
                    bad = said(job, fires);
                    good = said(job, fires.with(rule.silent()));
                }
                if (bad.isPresent() && good.isPresent()
                        && raised(bad.get(), lines(rule, 0)).contains(rule.id())
                        && !raised(good.get(), lines(rule, 1)).contains(rule.id())) {
                    return true;
                }
            }
        }
        return false;
    }

    private static String lines(BookRule rule, int which) {
        return RECKONED.getOrDefault(rule.id(), new String[]{"", ""})[which];
    }

    /**
     * What the plain board and bench of these tests cannot show, or what no shipped route lets happen: air over a store and a stack, a chip over its
     * rating, a large chip, the underside, a crowded side, a shield over the chip, a bench without a probe or with a weak station; two that ask for a rehearsal; orders within one step.
     */
    private static final TreeSet<String> ELSEWHERE = new TreeSet<>(List.of("air.blows-over-data-neighbour",
            "air.station-far-from-nominal", "heat.blind-on-a-strange-bench",
            "air.flow-without-its-station", "air.strong-on-a-stack-unseen", "alloy.edge-parts-float",
            "chip.over-its-rating", "heat.large-chip-without-bottom-heat", "heat.lift-setting-kept-for-seat",
            "heat.underside-drops", "lift.tool-on-crowded-side", "neighbour.over-its-limit",
            "order.flux-before-balls-stand", "order.flux-too-late", "order.no-fill-check",
            "order.scraped-before-soft", "order.wicked-undiluted", "shield.not-back",
            "shield.over-the-chip"));

    @Test
    public void everyRuleIsFiredAndSilencedByWork() {
        var missed = new TreeSet<String>();
        for (BookRule rule : BOOK.rules()) {
            if (!reached(rule)) {
                missed.add(rule.id());
            }
        }
        assertEquals(missed, ELSEWHERE, missed + " " + missed.size() + " of " + BOOK.rules().size());
        assertTrue(ELSEWHERE.size() < BOOK.rules().size() / 10);
    }
}
