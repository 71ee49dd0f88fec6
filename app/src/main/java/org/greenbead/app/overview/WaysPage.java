package org.greenbead.app.overview;

import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.OwnSteps;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;

/** Points on which practice differs, with what each way costs; and steps that may be left out. Another way than the usual one wants a reason. */
public final class WaysPage extends Page {
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Rows<School> rows;
    private final VBox detail = Looks.as(new VBox(8), "card");
    private final Line reason;
    private final Label said = Looks.note("said");
    private final VBox page;
    private final Subscription watching;
    private Optional<String> wanted = Optional.empty();
    private Writing writing = Writing.WAY;

    /** What the line is for. */
    private enum Writing {
        WAY, LEAVE_OUT, STEP
    }

    public WaysPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        reason = new Line("ways-reason", texts.get("ways.reason"));
        reason.setOnAction(enter -> reasoned(reason.getText()));
        said.setId("ways-said");
        detail.setId("ways-detail");
        rows = new Rows<>("ways-list", s -> "way-" + s.id(), this::row, (s, pressed) -> detail());
        HBox.setHgrow(rows, Priority.ALWAYS);
        detail.setPrefWidth(400);
        detail.setMinWidth(280);
        var middle = new HBox(12, rows, detail);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("ways.caps"), "caps"),
                Looks.label(texts.get("ways.title"), "now")), "instruction");
        page = Looks.as(
                new VBox(head, middle, reason, said, Looks.label(texts.get("ways.keys"), "muted", "small")),
                "page");
        reason.setVisible(false);
        reason.setManaged(false);
        backWord(texts.get("ways.back"));
        watching = model.jobProperty().subscribe(j -> {
            rows.show(Schools.shipped().of(j));
            detail();
        });
    }

    private Region row(School school) {
        Texts texts = desk.texts();
        String choice = Schools.shipped().chosen(model.job(), school);
        Label name = Looks.label(texts.say("school." + school.id()), "text-ink", "strong");
        Label now = Looks.label(texts.say("school." + school.id() + "." + choice), "small",
                choice.equals(school.standard()) ? "muted" : "ink-amber");
        return new VBox(1, name, now);
    }

    private void detail() {
        Texts texts = desk.texts();
        detail.getChildren().clear();
        Optional<School> chosen = rows.chosen();
        if (chosen.isEmpty()) {
            detail.getChildren().add(Looks.label(texts.get("ways.none"), "muted"));
            return;
        }
        School school = chosen.get();
        String now = Schools.shipped().chosen(model.job(), school);
        detail.getChildren().add(Looks.label(texts.say("school." + school.id()), "caps"));
        int number = 1;
        for (School.Choice choice : school.choices()) {
            String key = "school." + school.id() + "." + choice.id();
            var button = Looks.as(new Button(number + "  " + texts.say(key)
                    + (choice.id().equals(school.standard()) ? " · " + texts.get("ways.usual") : "")), "act");
            button.setId("choice-" + choice.id());
            button.setMaxWidth(Double.MAX_VALUE);
            button.setWrapText(true);
            button.setMinHeight(Region.USE_PREF_SIZE);
            button.setAlignment(Pos.CENTER_LEFT);
            button.pseudoClassStateChanged(Looks.ON, choice.id().equals(now));
            button.setOnAction(press -> want(choice.id()));
            detail.getChildren().addAll(button, Looks.label(texts.say(key + ".costs"), "muted", "small"));
            number++;
        }
        model.job().records("school").stream().filter(r -> r.text("point").equals(school.id()))
                .map(r -> r.text("reason")).filter(r -> !r.isEmpty()).findFirst()
                .ifPresent(r -> detail.getChildren()
                        .add(Looks.label(texts.get("ways.because", r), "text-ink", "small")));
        pedal(new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home));
    }

    private void want(String choice) {
        School school = rows.chosen().orElseThrow();
        writing = Writing.WAY;
        if (choice.equals(school.standard())) {
            choose(school, choice, "");
        } else {
            wanted = Optional.of(choice);
            askReason(desk.texts().get("ways.reason"));
        }
    }

    private void askReason(String prompt) {
        reason.clear();
        reason.setPromptText(prompt);
        reason.setVisible(true);
        reason.setManaged(true);
        reason.open();
    }

    private void reasoned(String text) {
        reason.setVisible(false);
        reason.setManaged(false);
        page.requestFocus();
        Writing what = writing;
        writing = Writing.WAY;
        switch (what) {
            case LEAVE_OUT -> changed("left_out", text);
            case STEP -> add(text);
            case WAY -> {
                wanted.ifPresent(w -> choose(rows.chosen().orElseThrow(), w, text));
                wanted = Optional.empty();
            }
        }
    }

    private void choose(School school, String choice, String why) {
        try {
            Job changed = Schools.shipped().choose(model.job(), school, choice, why, desk.clock().instant(),
                    desk.settings().technician().get());
            model.change(changed, "way chosen", school.id() + " " + choice);
            tell(desk.texts().get("ways.kept"), false);
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
    }

    private Kept change(String bead, String what, String why) {
        Kept fresh = model.fresh("route_change");
        var fields = new java.util.LinkedHashMap<String, Object>();
        fields.put("bead", bead);
        fields.put("change", what);
        fields.put("reason", why.isBlank() ? null : why.strip());
        return new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(), fields);
    }

    /** The current step leaves the route, or changes its place. */
    private void changed(String what, String why) {
        model.job().inHand().ifPresent(hand -> {
            Kept kept = change(hand.id(), what, why);
            keep(() -> switch (what) {
                case "left_out" -> model.job().leaveOut(hand.id(), kept);
                case "earlier" -> OwnSteps.move(model.job(), hand.id(), -1, kept);
                default -> OwnSteps.move(model.job(), hand.id(), 1, kept);
            }, "step " + what.replace('_', ' '), hand.id(),
                    what.equals("left_out") ? "ways.left" : "ways.moved");
        });
    }

    /** A step of one's own behind the current one. */
    private void add(String words) {
        model.job().inHand().ifPresent(hand -> keep(() -> {
            Bead own = OwnSteps.bead(hand.phase(), words, List.of());
            return OwnSteps.add(model.job(), own, Optional.of(hand.id()), change(own.id(), "added", ""));
        }, "step added", words, "ways.added"));
    }

    private void keep(java.util.function.Supplier<Job> made, String kind, String detail, String said) {
        try {
            model.change(made.get(), kind, detail);
            String named = desk.texts().words().has("bead." + detail)
                    ? desk.texts().say("bead." + detail)
                    : detail;
            tell(desk.texts().get(said, named), false);
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
    }

    /** Jobs of this kind begin like this one from now on. */
    private void house() {
        Optional<JobKind> kind = JobFacts.kind(model.job());
        if (kind.isEmpty()) {
            return;
        }
        HouseRoute route = HouseRoute.of(kind.get(), model.job());
        desk.io(() -> {
            desk.ledger().save(route);
            return route;
        }, kept -> tell(desk.texts().get("ways.house", desk.texts().say("kind." + kind.get().key())), false));
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.overview();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        int digit = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : 0;
        List<School.Choice> choices = rows.chosen().map(School::choices).orElse(List.of());
        if (digit > 0 && digit <= choices.size()) {
            want(choices.get(digit - 1).id());
            return true;
        }
        switch (code) {
            case DOWN -> rows.move(1);
            case UP -> rows.move(-1);
            case X -> model.job().inHand().ifPresent(b -> {
                writing = Writing.LEAVE_OUT;
                askReason(desk.texts().get("ways.leave", desk.texts().say("bead." + b.id())));
            });
            case A -> model.job().inHand().ifPresent(b -> {
                writing = Writing.STEP;
                askReason(desk.texts().get("ways.add", desk.texts().say("bead." + b.id())));
            });
            case PAGE_UP -> changed("earlier", "");
            case PAGE_DOWN -> changed("later", "");
            case W -> house();
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
