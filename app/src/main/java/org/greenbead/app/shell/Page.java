package org.greenbead.app.shell;

import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import org.greenbead.core.finding.Finding;

/** What lies on the workbench: one thing at a time. Touched on the FX thread only. */
public abstract class Page {
    private final ReadOnlyObjectWrapper<Pedal> pedal = new ReadOnlyObjectWrapper<>(Pedal.shut("", ""));
    private final ReadOnlyObjectWrapper<List<Finding>> findings = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyStringWrapper clock = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper backWord = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper noteWord = new ReadOnlyStringWrapper("");

    public abstract Region node();

    /** The key beside the pedal. */
    public void back() {
    }

    public void note() {
    }

    /** A remedy in Watch was pressed. */
    public void remedy(Finding finding) {
    }

    /** True when Watch judges the plan of the next run here. */
    public boolean planned() {
        return false;
    }

    /** What the figures of this page are of, as the facts of a job are called: {@code rails}, {@code chip}. Empty = of everything. */
    public List<String> about() {
        return List.of();
    }

    /** A key that belongs to this page. @return true when it was used */
    public boolean key(KeyCode code, boolean control) {
        return false;
    }

    /** Takes back the last step of what is drawn here and not kept yet. @return false when there is none */
    public boolean unstep() {
        return false;
    }

    /** Something that this page may show was taken back elsewhere. */
    public void reread() {
    }

    /** It has left the workbench for good. */
    public void dispose() {
    }

    public ReadOnlyObjectProperty<Pedal> pedalProperty() {
        return pedal.getReadOnlyProperty();
    }

    public ReadOnlyObjectProperty<List<Finding>> findingsProperty() {
        return findings.getReadOnlyProperty();
    }

    public ReadOnlyStringProperty clockProperty() {
        return clock.getReadOnlyProperty();
    }

    public ReadOnlyStringProperty backWordProperty() {
        return backWord.getReadOnlyProperty();
    }

    public ReadOnlyStringProperty noteWordProperty() {
        return noteWord.getReadOnlyProperty();
    }

    protected void pedal(Pedal now) {
        pedal.set(now);
    }

    protected void findings(List<Finding> now) {
        findings.set(List.copyOf(now));
    }

    protected void clock(String text) {
        clock.set(text);
    }

    protected void backWord(String word) {
        backWord.set(word);
    }

    protected void noteWord(String word) {
        noteWord.set(word);
    }
}
