package org.greenbead.app.shell;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;
import java.util.function.Predicate;

/**
 * What was changed, wherever in the window, the newest first: job, picture, bead map, chips, boards and stock in one order, so that what is taken
 * back is what was done last. Touched on the FX thread only.
 */
public final class Changes {
    private static final int MOST = 200;
    private final Deque<Change> made = new ArrayDeque<>();
    private long act;
    private boolean together;

    /** @param of whose change it is, @param act changes of one act go together */
    private record Change(Object of, String what, long act, Runnable back) {}

    /**
     * Something was changed.
     *
     * @param of   whose: a job, which is taken back only while it is in hand, or anything else
     * @param what a name for whoever takes it back: a job's number, a board, a label
     * @param back makes it what it was
     */
    public void made(Object of, String what, Runnable back) {
        if (!together) {
            act++;
        }
        made.push(new Change(of, what, act, back));
        if (made.size() > MOST) {
            made.removeLast();
        }
    }

    /** Whatever is changed meanwhile is one act: taken back together or not at all. */
    public void together(Runnable acts) {
        act++;
        together = true;
        try {
            acts.run();
        } finally {
            together = false;
        }
    }

    /** Takes back the last act that may be. @return the names of what it had changed, empty where there is none */
    public List<String> takeBack(Predicate<Object> may) {
        long last = made.stream().filter(c -> may.test(c.of())).mapToLong(Change::act).findFirst().orElse(-1);
        var names = new ArrayList<String>();
        for (Iterator<Change> all = made.iterator(); all.hasNext();) {
            Change change = all.next();
            if (change.act() == last) {
                all.remove();
                change.back().run();
                names.add(change.what());
            }
        }
        return List.copyOf(names);
    }

    /** A board was heated: nothing from before it can be taken back. */
    public void forget() {
        made.clear();
    }
}
