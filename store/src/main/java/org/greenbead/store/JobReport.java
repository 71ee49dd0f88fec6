package org.greenbead.store;

import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.StageMark;
import org.greenbead.core.run.Verdict;

/** The report of a job with one of its runs, as PDF: what was done, what was reached, what was not proved. */
public final class JobReport {
    private static final float[] PAIR = {0.24f, 0.76f};
    private static final float[] LINE = {0.16f, 0.84f};
    private static final float[] STAGE = {0.28f, 0.14f, 0.14f, 0.44f};

    private JobReport() {
    }

    /** @param job as it is now; its route is printed */
    public static byte[] pdf(Job job, RunLog log, Words words) throws IOException {
        RunPlan plan = log.header().plan();
        var ended = new AtomicReference<RunEngine>();
        RunCurves heat = RunCurves.replayed(log, words, ended::set);
        RunEngine engine = ended.get();
        Verdict verdict = engine.verdict();
        RunState end = engine.state();
        try (var sheet = new PdfSheet()) {
            sheet.title(words.say("report.title") + " " + job.id());
            if (log.header().simulated()) {
                sheet.paragraph(words.say("report.simulated"));
            }
            sheet.heading(words.say("report.job"));
            pair(sheet, words.say("report.board"), job.title() + ", " + plan.board().id());
            pair(sheet, words.say("report.customer"), job.customer());
            pair(sheet, words.say("report.complaint"), job.complaint());
            pair(sheet, words.say("report.chip"),
                    plan.target().name() + " " + plan.target().part() + ", "
                            + plan.target().joint().alloy().name() + ", "
                            + plan.target().melts() + " " + words.say("report.melts"));
            pair(sheet, words.say("report.bench"), plan.bench().title());
            pair(sheet, words.say("report.recipe"), plan.recipe().title());
            pair(sheet, words.say("report.run"),
                    log.header().run() + ", " + Clocked.said(log.header().started(), words.locale()));
            pair(sheet, words.say("report.length"), Words.clock(verdict.lengthS()));
            if (plan.target().joint().alloy().hasPb()) {
                sheet.paragraph(words.say("report.lead"));
            }
            sheet.heading(words.say("report.verdict") + ": "
                    + words.say("verdict.outcome." + verdict.outcome().name().toLowerCase(Locale.ROOT))
                    + verdict.noProbe().map(k -> ", " + words.say("report.no_probe")).orElse(""));
            for (Verdict.Line line : verdict.lines()) {
                sheet.row(LINE, true, words.say("mark." + line.mark().name().toLowerCase(Locale.ROOT)),
                        words.say(line.what()));
            }
            sheet.heading(words.say("report.curve"));
            sheet.chart(heat.curves(), heat.interval(),
                    plan.target().joint().alloy().liquidusC(), plan.target().bodyLimitC(),
                    t -> words.show(new Quantity.TempC(t)), "min:s");
            sheet.paragraph(words.say("report.estimate"));
            sheet.heading(words.say("report.stages"));
            sheet.row(STAGE, true, words.say("report.stage"), words.say("report.from"),
                    words.say("report.to"), words.say("report.ended"));
            for (StageMark mark : end.marks()) {
                sheet.row(STAGE, false, mark.name(), Words.clock(mark.startS()), Words.clock(mark.endS()),
                        words.say("endedby." + mark.endedBy().name().toLowerCase(Locale.ROOT)));
            }
            sheet.heading(words.say("report.findings"));
            if (end.raised().isEmpty()) {
                sheet.paragraph(words.say("report.none"));
            }
            for (Finding finding : end.raised()) {
                sheet.row(LINE, true,
                        words.say("severity." + finding.severity().name().toLowerCase(Locale.ROOT)),
                        words.say(finding.what()) + ". " + words.say(finding.why()));
            }
            waived(job, sheet, words);
            written(job, sheet, words);
            sheet.heading(words.say("report.route"));
            for (Bead bead : job.beads()) {
                String state = words.say("report." + bead.state().name().toLowerCase(Locale.ROOT));
                String phase = words.say("phase." + bead.phase().name().toLowerCase(Locale.ROOT));
                sheet.row(PAIR, false, phase, words.say("bead." + bead.id()) + ": " + state);
            }
            return sheet.finish((page, of) -> job.id() + "  ·  "
                    + words.say("report.page", new Quantity.Count(page), new Quantity.Count(of)));
        }
    }

    /** Warnings that somebody set aside, with the reason: they stay in the report. */
    private static void waived(Job job, PdfSheet sheet, Words words) throws IOException {
        List<?> waivers = job.facts().at("waivers").filter(List.class::isInstance).map(List.class::cast)
                .orElse(List.of());
        List<Kept> kept = job.records("waiver");
        if (waivers.isEmpty() && kept.isEmpty()) {
            return;
        }
        sheet.heading(words.say("report.waived"));
        for (Object one : waivers) {
            if (one instanceof Map<?, ?> waiver) {
                pair(sheet, String.valueOf(waiver.get("rule")),
                        waiver.get("reason")
                                + (blank(waiver.get("person")) ? "" : " (" + waiver.get("person") + ")"));
            }
        }
        for (Kept waiver : kept) {
            pair(sheet, waiver.text("rule"), waiver.text("reason") + " " + waiver.text("consequence"));
        }
    }

    private static boolean blank(Object text) {
        return text == null || String.valueOf(text).isBlank();
    }

    /** What people wrote down, type by type. */
    private static void written(Job job, PdfSheet sheet, Words words) throws IOException {
        if (job.records().isEmpty()) {
            return;
        }
        sheet.heading(words.say("report.records"));
        for (RecordType type : RecordTypes.shipped().all()) {
            for (Kept record : job.records(type.id())) {
                var line = new StringBuilder();
                for (RecordType.Item item : type.fields()) {
                    record.noted(item.name()).ifPresent(v -> line.append(line.isEmpty() ? "" : "; ")
                            .append(words.say("record." + type.id() + "." + item.name())).append(": ")
                            .append(said(item.name(), v, words)));
                }
                pair(sheet, words.say("record." + type.id()), line.toString());
            }
        }
    }

    private static String said(String field, Object value, Words words) {
        return switch (value) {
            case Double d when field.equals("c") || field.endsWith("_c") -> words.show(new Quantity.TempC(d));
            case Double d ->
                d == Math.rint(d) ? Long.toString(d.longValue()) : String.format(Locale.ROOT, "%.3g", d);
            case Boolean yes -> words.say(yes ? "book.yes" : "book.no");
            default -> String.valueOf(value).replace('_', ' ').replaceAll("[\\[\\]]", "");
        };
    }

    private static void pair(PdfSheet sheet, String name, String value) throws IOException {
        sheet.row(PAIR, true, name, value);
    }
}
