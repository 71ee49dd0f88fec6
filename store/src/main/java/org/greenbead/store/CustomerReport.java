package org.greenbead.store;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.imageio.ImageIO;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.board.Board;
import org.greenbead.core.proof.JobSummary;
import org.greenbead.core.proof.Masking;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.AfterRun;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;

/** The report that is handed to the customer: one page of answer and proofs, then the heat. It needs no run. */
public final class CustomerReport {
    private static final float[] PROOF = {0.24f, 0.20f, 0.22f, 0.34f};
    private static final int MOST_PX = 1000;
    /** Heading, curve and the line under it. */
    private static final float HEAT_POINTS = 270;
    private static final List<String> VIEWS = List.of("board_top", "whole", "board_underside");

    private CustomerReport() {
    }

    /**
     * What a report is made from.
     *
     * @param strands its further chips
     * @param board   empty where the ledger does not have it
     * @param picture of the board as it came, empty where there is none that may be shown
     * @param runs    the last run of each step that heated, in the order of the route
     * @param healthy what rails of this type of board read on healthy ones
     * @param at      day of the report
     */
    public record Source(Job job, List<Job> strands, Optional<Board> board, Optional<Path> picture,
            List<RunLog> runs,
            Map<String, RailReferences.Reference> healthy, Instant at) {
        public Source {
            strands = List.copyOf(strands);
            runs = List.copyOf(runs);
            healthy = Map.copyOf(healthy);
        }
    }

    /** Gathers it from the ledger. A run whose log cannot be read is left out; the record of it still speaks. */
    public static Source gather(Ledger ledger, String jobId, Instant at) throws BadFileException {
        Job job = ledger.job(jobId);
        Optional<Board> board = ledger.boards().stream().filter(b -> b.id().equals(job.board())).findFirst();
        List<RunLog> runs = runs(ledger, job);
        var told = new ArrayList<Job>();
        var all = new ArrayList<>(runs);
        if (job.strandOf().isEmpty()) {
            for (Job strand : Strands.of(job, ledger.jobs())) {
                List<RunLog> heats = runs(ledger, strand);
                told.add(told(strand, heats));
                all.addAll(heats);
            }
        }
        return new Source(told(job, runs), told, board, picture(job).flatMap(ledger.photos()::find), all,
                RailReferences.learn(ledger.jobs(), job.board(), jobId), at);
    }

    /** The last run of each step that heated. */
    private static List<RunLog> runs(Ledger ledger, Job job) {
        var runs = new ArrayList<RunLog>();
        for (Bead bead : job.beads()) {
            Optional<RunEntry> last = ledger.runs().stream().filter(r -> r.jobId().equals(job.id())
                    && r.bead().equals(bead.id()) && r.outcome().isPresent())
                    .max(java.util.Comparator.comparing(RunEntry::startedAt));
            if (last.isPresent()) {
                try {
                    runs.add(RunLog.read(ledger.logFile(last.get()), ledger.files()));
                } catch (BadFileException e) {
                    // The record of the run stays in the report; doctor names the damaged log.
                }
            }
        }
        return runs;
    }

    /** A run that was kept before runs wrote their own record has one made from its log. */
    private static Job told(Job job, List<RunLog> runs) {
        Job told = job;
        for (RunLog log : runs) {
            RunPlan plan = log.header().plan();
            if (told.records("run").stream().noneMatch(r -> r.text("bead").equals(plan.bead()))) {
                RunEngine engine = log.replay(Optional.empty(), s -> {
                });
                told = AfterRun.written(told, plan, log.events(), engine.verdict(), log.header().started(),
                        "");
                Kept run = told.records("run").getLast();
                told = log.header().simulated()
                        ? told.with(run.with("simulated", true, run.at(), run.author()))
                        : told;
            }
        }
        return told;
    }

    /** A picture of the whole board; never one that shows private things unmasked. */
    private static Optional<String> picture(Job job) {
        for (String view : VIEWS) {
            Optional<Kept> found = job.records("picture").stream().filter(p -> p.text("view").equals(view)
                    && !p.text("file").isEmpty() && !Boolean.FALSE.equals(p.noted("masked").orElse(null)))
                    .findFirst();
            if (found.isPresent()) {
                return found.map(p -> p.text("file"));
            }
        }
        return Optional.empty();
    }

    public static byte[] pdf(Source source, Words words) throws IOException {
        Job job = source.job();
        JobSummary summary = JobSummary.of(job, source.strands(), source.healthy(), words);
        Optional<BufferedImage> photo = source.picture().flatMap(CustomerReport::read);
        try (var sheet = new PdfSheet()) {
            sheet.cover(words.say("closing.report"), summary.line(), colour(summary.answer()),
                    List.of(new String[]{words.say("closing.number"), job.id()},
                            new String[]{words.say("report.board"),
                                    Masking.of(job.title())
                                            + source.board().map(b -> " (" + b.id() + ")").orElse("")},
                            new String[]{words.say("closing.customer"), Masking.of(job.customer())},
                            new String[]{words.say("report.complaint"), Masking.of(job.complaint())},
                            new String[]{words.say("closing.date"),
                                    Clocked.day(source.at(), words.locale())}),
                    photo.orElseGet(() -> BoardFigure.of(source.board(), job.target())),
                    words.say(photo.isPresent() ? "closing.figure.photo" : "closing.figure.drawn"));
            section(sheet, words.say("closing.heading.wrong"), summary.wrong());
            section(sheet, words.say("closing.heading.done"), summary.done());
            proofs(sheet, summary, words);
            section(sheet, words.say("closing.heading.open"), summary.open());
            section(sheet, words.say("closing.heading.expect"), summary.expect());
            section(sheet, words.say("closing.heading.mind"), summary.mind());
            for (RunLog log : source.runs()) {
                heat(sheet, log, words);
            }
            return sheet.finish((page, of) -> job.id() + "  ·  "
                    + words.say("report.page", new Quantity.Count(page), new Quantity.Count(of)));
        }
    }

    private static void section(PdfSheet sheet, String heading, List<String> sentences) throws IOException {
        if (sentences.isEmpty()) {
            return;
        }
        sheet.heading(heading);
        for (String sentence : sentences) {
            sheet.bullet(sentence);
        }
    }

    private static void proofs(PdfSheet sheet, JobSummary summary, Words words) throws IOException {
        if (summary.proofs().isEmpty()) {
            return;
        }
        sheet.heading(words.say("closing.heading.proofs"));
        sheet.columns(PROOF, words.say("closing.column.what"), words.say("closing.column.before"),
                words.say("closing.column.after"), words.say("closing.column.says"));
        for (ProofWall.Proof p : summary.proofs()) {
            sheet.marked(switch (p.state()) {
                case HOLDS -> PdfSheet.Mark.GOOD;
                case FAILS -> PdfSheet.Mark.BAD;
                case OPEN -> PdfSheet.Mark.OPEN;
            }, PROOF, Masking.of(p.name()), taken(p.before(), words), taken(p.after(), words),
                    Masking.of(p.why()));
        }
    }

    private static String taken(String text, Words words) {
        return text.isEmpty() ? words.say("closing.not_taken") : Masking.of(text);
    }

    private static void heat(PdfSheet sheet, RunLog log, Words words) throws IOException {
        RunPlan plan = log.header().plan();
        sheet.together(HEAT_POINTS);
        sheet.heading(words.say("closing.heading.heat") + ": " + plan.recipe().title() + ", "
                + Clocked.said(log.header().started(), words.locale()));
        RunCurves curves = log.lastKnown().isPresent()
                ? RunCurves.kept(log, words)
                : RunCurves.replayed(log, words, engine -> {
                });
        sheet.chart(curves.curves(), curves.interval(), plan.target().joint().alloy().liquidusC(),
                plan.target().bodyLimitC(), t -> words.show(new Quantity.TempC(t)), "min:s");
        String how = words.say(
                plan.bench().probes().isEmpty() ? "closing.estimate.no_probe" : "closing.estimate");
        sheet.paragraph(curves.interval().isPresent() ? how + " " + words.say("closing.band") : how);
    }

    private static int colour(JobSummary.Answer answer) {
        return switch (answer) {
            case REPAIRED, DATA_SAVED -> 0x1E8558;
            case WORKS -> 0xC47A1E;
            case NOT_REPAIRED -> 0xBF3F2A;
            case DECLINED, EXAMINED, IN_HAND -> 0x8A979E;
        };
    }

    /** As large as a page wants it; a picture that cannot be read gives way to the drawing. */
    private static Optional<BufferedImage> read(Path file) {
        try {
            BufferedImage full = ImageIO.read(file.toFile());
            if (full == null) {
                return Optional.empty();
            }
            double scale = Math.min(1, MOST_PX / (double) Math.max(full.getWidth(), full.getHeight()));
            var small = new BufferedImage((int) Math.round(full.getWidth() * scale),
                    (int) Math.round(full.getHeight() * scale), BufferedImage.TYPE_INT_RGB);
            Graphics2D g = small.createGraphics();
            g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
            g.drawImage(full, 0, 0, small.getWidth(), small.getHeight(), null);
            g.dispose();
            return Optional.of(small);
        } catch (IOException e) {
            return Optional.empty();
        }
    }
}
