package org.greenbead.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The whole rule book over a large job: 300 parts, 200 joints, 20 stages, 40 connectors, and every rule's own facts. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class RuleBenchmark {
    private RuleBook book;
    private Facts large;

    @Setup
    public void prepare() {
        book = RuleBook.shipped();
        large = Facts.none().with("plan.centre_c=236; plan.base_c=115; plan.zone_mm=8; plan.decay_mm=6");
        for (var rule : book.rules()) {
            large = large.with(rule.fires().replaceAll("plan\\.steps=[^;]*", ""));
        }
        var text = new StringBuilder(
                "plan.steps=[verify, open_case, orient, soak, peak, lift, dilute, wick, print, form, ball_check, place, seat, close]");
        for (int i = 0; i < 300; i++) {
            text.append(
                    "; parts.%d.id=C%d; parts.%d.distance_mm=%d; parts.%d.body_limit_c=130; parts.%d.size_code=402"
                            .formatted(i, i, i, 1 + i % 40,
                                    i, i));
        }
        for (int i = 0; i < 200; i++) {
            text.append(
                    "; joints.%d.site=S%d; joints.%d.solidus_c=217; joints.%d.bi_pct=0; joints.%d.pb_pct=0"
                            .formatted(i, i, i, i, i));
        }
        for (int i = 0; i < 20; i++) {
            text.append(
                    "; plan.stages.%d.id=s%d; plan.stages.%d.kind=soak; plan.stages.%d.scope=board; plan.stages.%d.target_c=120"
                            .formatted(i, i,
                                    i, i, i));
        }
        for (int i = 0; i < 40; i++) {
            text.append("; connectors.%d.id=J%d; connectors.%d.supply=no; connectors.%d.matings=3"
                    .formatted(i, i, i, i));
        }
        large = large.with(text.toString());
    }

    @Benchmark
    public List<Noticed> wholeBookOverALargeJob() {
        return book.check(large, RuleBook.Settings.STANDARD);
    }
}
