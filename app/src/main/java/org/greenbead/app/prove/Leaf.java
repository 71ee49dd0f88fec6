package org.greenbead.app.prove;

import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Page;

/** A page that belongs to another one: it goes back there, takes plain keys alone, and lets go of what it watched when it leaves. */
abstract class Leaf extends Page {
    private final Runnable back;
    private Region page = new Region();
    private Subscription watching = Subscription.EMPTY;

    /** @param back to the page it belongs to */
    Leaf(Runnable back, String backWord) {
        this.back = back;
        backWord(backWord);
    }

    /** What is to be seen. */
    final void lay(Region made) {
        page = made;
    }

    final void watch(Subscription of) {
        watching = watching.and(of);
    }

    static Button tool(String id, String word, Runnable does) {
        var button = Looks.as(new Button(word), "act", "small");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(press -> does.run());
        return button;
    }

    /** A key without Control. @return true when it was used */
    abstract boolean key(KeyCode code);

    @Override
    public final boolean key(KeyCode code, boolean control) {
        return !control && key(code);
    }

    @Override
    public final Region node() {
        return page;
    }

    @Override
    public final void back() {
        back.run();
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
