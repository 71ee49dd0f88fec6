package org.greenbead.core.timer;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.OptionalDouble;
import org.greenbead.core.electric.TestLog;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * A test that ran by itself and left a log: the log says how it came out, no clock and no press.
 *
 * @param log  as it was read
 * @param file the name that the log is kept under
 */
public record LongTest(TestLog log, String file) {
    private static final String MEMORY = "memory";

    /**
     * What it comes to, as a record of the job. A log that tells no whole pass tests nothing.
     *
     * @param what    was tested, as a person named it
     * @param minutes how long it ran, where that is known
     */
    public Kept record(Job job, String what, OptionalDouble minutes, Instant at, String by, Words words) {
        var fields = new LinkedHashMap<String, Object>();
        fields.put("what", what.isEmpty() ? MEMORY : what);
        fields.put("result", switch (log.result()) {
            case PASS -> "pass";
            case FAIL -> "fail";
            case NOT_TOLD -> "not_tested";
        });
        fields.put("minutes", minutes.isPresent() ? minutes.getAsDouble() : null);
        if (log.result() != TestLog.Result.NOT_TOLD
                && (log.memory() || what.isEmpty() || what.contains(MEMORY))) {
            fields.put("memory_pass", log.result() == TestLog.Result.PASS);
        }
        fields.put("evidence", says(words));
        fields.put("log", file);
        return new Kept(job.freeId("tested"), "tested", at, by, fields);
    }

    /** How it came out, and where it points when it failed. */
    public String says(Words words) {
        return words.say(log.says()) + (log.result() == TestLog.Result.FAIL
                ? ". " + words.say(log.points())
                : "");
    }
}
