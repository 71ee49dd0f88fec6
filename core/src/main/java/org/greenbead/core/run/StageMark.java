package org.greenbead.core.run;

/**
 * When a stage was entered and what ended it.
 *
 * @param endS NaN while it lasts
 */
public record StageMark(int index, String name, double startS, double endS, EndedBy endedBy) {
    /** What ended a stage. */
    public enum EndedBy {
        RUNNING, TIME, PROBE, TWIN, WORD, MELT, SAFE, BROKEN_OFF
    }
}
