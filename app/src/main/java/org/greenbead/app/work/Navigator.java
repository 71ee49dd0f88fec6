package org.greenbead.app.work;

import java.util.Optional;
import java.util.function.Consumer;
import org.greenbead.app.shell.Page;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.store.RunEntry;

/** Where a page can send the technician. */
public interface Navigator {
    /** One bench, to be looked at and changed. */
    void bench(Bench bench);

    /** The bead in hand of the job in hand. */
    void home();

    void bead(String beadId);

    void recipe(String beadId);

    void run();

    /** Puts a page about a bead of a job on the workbench. */
    void page(Page page, String jobId, String beadId);

    void replay(RunEntry entry);

    void ledger();

    /** What became of the jobs of this ledger. */
    void odds();

    /** Counts laps of the nozzle, cold, before the heat. */
    void laps(String beadId);

    /** Times the iron at a step that uses one. */
    void iron(String beadId);

    /** What is used up or wears. */
    void stock();

    /** Waits of all jobs. */
    void timers();

    /** The bench set-up, with what its runs have told. */
    void setup();

    /** Opens a run that teaches a bench, on the board of a job that lies on it. */
    void guided(String benchId);

    /** Dots of solder that teach a bench without a thermocouple, on the board of a job that lies on it. */
    void witness(String benchId);

    /** A bench is known otherwise than before: what lies on it is planned and rehearsed anew. */
    void benchChanged(String benchId);

    /** Asks a kept run what it tells of its bench. */
    void calibrate(RunEntry entry);

    /** The questions that begin a job. */
    void newJob();

    /** Draws a board of one's own, or changes it. */
    void ownBoard(Optional<Board> change);

    /**
     * Draws a board on the way to something else.
     *
     * @param kept told the board once it is kept, back on the page it was asked from
     */
    void boardFor(Page from, Consumer<Board> kept);

    /** The chips of the job in hand. */
    void strands();

    /** The plan of the job in hand at a glance. */
    void overview();

    /** The ways of working of the job in hand. */
    void ways();

    /** The picture of its board. */
    void picture();

    /** Two photos of its board, one over the other. */
    void changes();

    /** The bead map of its chip. */
    void map();

    /** Stencil and paste for its balls. */
    void stencil();

    /** The photo of its balls or pads. */
    void balls();

    /** The start-up current, as it is asked for at a bead of the job in hand. */
    void curve(String beadId);

    /** Courses of the job in hand side by side. */
    void courses();

    /** Its configuration resistors. */
    void straps();

    /** Which chips move with its data. */
    void paired();

    /** Its proofs before and after the work. */
    void proofs();

    /** Its rails to ground, one after the other. */
    void rails();

    /** Damaged pads, one after the other. */
    void pads();

    /** The gap round the seated chip, read in photos. */
    void gaps();

    /** What its lamp blinks. */
    void codes();

    /** The customer's report, as it will be handed out. */
    void report();

    /** To one question of a bead of the job in hand. */
    void ask(String beadId, Question question);

    /** The same of the last record of its type, or of a new one where there is none. */
    default void ask(String beadId, String type, String field) {
        ask(beadId, Question.of(type, field));
    }

    /**
     * @param field  first to be asked for; the first that is open where empty
     * @param record that it is about; the last of its type where empty
     * @param begun  what a new record begins with, in its line to be taken or changed; empty where none is begun
     */
    record Question(String type, String field, Optional<String> record, String begun) {
        static Question of(String type, String field) {
            return new Question(type, field, Optional.empty(), "");
        }
    }

    void book();

    /** Everything that was done and said in the job in hand, in the order of time. */
    void account();
}
