package org.greenbead.app.ledger;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.prove.OddsStrip;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.odds.Effort;
import org.greenbead.core.odds.Odds;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.route.Job;

/** What became of the jobs of this bench, put together by one thing at a time, each with how much so few tries say. */
public final class OddsPage extends Page {
    private final Desk desk;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label looked = Looks.label("", "muted");
    private final FlowPane ways = new FlowPane(8, 6);
    private final Rows<Line> list;
    private final VBox page;
    private Outcomes.By by = Outcomes.By.KIND;
    private Optional<List<Job>> jobs = Optional.empty();
    private Optional<Counted> table = Optional.empty();
    private int turn;

    /** What is told of one group: how its jobs came out, what they took, or both. */
    private record Line(String name, Optional<Odds> odds, Optional<Effort.Group> took) {}

    private record Counted(Outcomes.Table outcomes, Effort effort) {
        List<Line> lines() {
            Map<String, Effort.Group> took = effort.groups().stream()
                    .collect(Collectors.toMap(Effort.Group::name, g -> g));
            var lines = new ArrayList<Line>();
            outcomes.groups().forEach(g -> lines.add(new Line(g.name(), Optional.of(g.odds()),
                    Optional.ofNullable(took.remove(g.name())))));
            effort.groups().stream().filter(g -> took.containsKey(g.name()))
                    .forEach(g -> lines.add(new Line(g.name(), Optional.empty(), Optional.of(g))));
            return lines;
        }
    }

    public OddsPage(Desk desk, Navigator go) {
        this.desk = desk;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("odds-title");
        looked.setId("odds-looked");
        list = new Rows<>("odds-list",
                g -> "odds-" + g.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-"),
                this::row, (g, pressed) -> {
                });
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("odds.caps"), "caps"), title, looked, ways),
                "instruction");
        page = Looks.as(new VBox(head, list, Looks.label(texts.get("odds.keys"), "muted", "small")), "page");
        backWord(texts.get("key.back"));
        pedal(new Pedal(texts.get("odds.next"), texts.get("odds.next.so"), true, () -> choose(1)));
        desk.io(() -> desk.ledger().jobs(), read -> {
            jobs = Optional.of(read);
            count();
        });
        show();
    }

    private void count() {
        int mine = ++turn;
        Outcomes.By wanted = by;
        jobs.ifPresent(
                all -> desk.compute(() -> new Counted(Outcomes.by(wanted, all, ZoneId.systemDefault()),
                        Effort.by(wanted, all, ZoneId.systemDefault())), counted -> {
                            if (mine == turn) {
                                table = Optional.of(counted);
                                show();
                            }
                        }));
    }

    private void choose(int step) {
        by = Outcomes.By.values()[Math.floorMod(by.ordinal() + step, Outcomes.By.values().length)];
        show();
        count();
    }

    private void show() {
        Texts texts = desk.texts();
        ways.getChildren().clear();
        for (Outcomes.By way : Outcomes.By.values()) {
            Label chip = Looks.label(texts.get("odds.way", way.ordinal() + 1, word(way)), "odds-way");
            chip.setId("odds-by-" + way.name().toLowerCase(Locale.ROOT));
            chip.setAccessibleRole(AccessibleRole.RADIO_BUTTON);
            chip.pseudoClassStateChanged(Looks.ON, way == by);
            chip.setOnMouseClicked(press -> choose(way.ordinal() - by.ordinal()));
            ways.getChildren().add(chip);
        }
        if (table.isEmpty() || table.get().outcomes().by() != by) {
            title.setText(texts.get("odds.counting"));
            looked.setText("");
            list.show(List.of());
            return;
        }
        Outcomes.Table t = table.get().outcomes();
        int told = t.groups().stream().mapToInt(g -> g.odds().tries()).sum();
        int good = t.groups().stream().mapToInt(g -> g.odds().good()).sum();
        title.setText(told == 0 ? texts.get("odds.none") : texts.get("odds.title", good, told, word(by)));
        String drills = t.drills().tries() == 0
                ? ""
                : " " + texts.get("odds.drills", t.drills().good(), t.drills().tries());
        looked.setText((told == 0
                ? texts.get("odds.none.so", t.untold())
                : texts.get("odds.looked", t.untold(), t.groups().size(), t.pairs())) + drills);
        list.show(table.get().lines());
    }

    private String word(Outcomes.By way) {
        Texts texts = desk.texts();
        return switch (way) {
            case KIND -> texts.get("odds.by.kind");
            case BOARD -> texts.get("odds.by.board");
            case CHIP -> texts.get("odds.by.chip");
            case ALLOY -> texts.get("odds.by.alloy");
            case BENCH -> texts.get("odds.by.bench");
            case PERSON -> texts.get("odds.by.person");
            case MONTH -> texts.get("odds.by.month");
        };
    }

    private Region row(Line g) {
        Texts texts = desk.texts();
        String named = by == Outcomes.By.KIND && texts.words().has("kind." + g.name())
                ? texts.say("kind." + g.name())
                : g.name().isEmpty() ? texts.get("odds.nameless") : g.name();
        Label name = Looks.label(named, "text-ink", "strong");
        name.setPrefWidth(200);
        name.setMinWidth(120);
        var row = new HBox(12, name);
        row.setAlignment(Pos.CENTER_LEFT);
        g.odds().ifPresentOrElse(odds -> {
            Label count = Looks.label(texts.get("odds.count", odds.good(), odds.tries()), "text-ink");
            count.setPrefWidth(80);
            count.setMinWidth(70);
            var strip = new OddsStrip(odds);
            HBox.setHgrow(strip, Priority.ALWAYS);
            Label says = Looks.label(
                    texts.get("odds.says", percent(odds.chance()), percent(odds.quantile(0.05)),
                            percent(odds.quantile(0.95))),
                    "text-ink", "small");
            says.setPrefWidth(170);
            says.setMinWidth(120);
            row.getChildren().addAll(count, strip, says);
        }, () -> row.getChildren().add(Looks.label(texts.get("odds.untold"), "muted", "small")));
        return g.took().isEmpty() ? row : new VBox(3, row, Looks.label(took(g.took().get()), "muted"));
    }

    /** "by hand 65 min (50 to 90) · unattended 40 min · material 4.20", what is not noted left out. */
    private String took(Effort.Group g) {
        Texts texts = desk.texts();
        var parts = new ArrayList<String>();
        add(parts, "odds.hand", g.attendedMin(), "%.0f");
        add(parts, "odds.alone", g.unattendedMin(), "%.0f");
        add(parts, "odds.material", g.material(), "%.2f");
        add(parts, "odds.parts", g.parts(), "%.2f");
        return parts.isEmpty()
                ? texts.get("odds.took.nothing", g.jobs())
                : texts.get("odds.took", g.jobs(), String.join(" \u00b7 ", parts));
    }

    private void add(List<String> parts, String key, Effort.Spread s, String number) {
        if (s.of() > 0) {
            String middle = String.format(Locale.ROOT, number, s.middle());
            parts.add(desk.texts().words().say(key, new Quantity.Name(s.of() < 2
                    ? middle
                    : desk.texts().get("odds.between", middle, String.format(Locale.ROOT, number, s.low()),
                            String.format(Locale.ROOT, number, s.high())))));
        }
    }

    private static String percent(double part) {
        return String.format(Locale.ROOT, "%.0f %%", part * 100);
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.ledger();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        int digit = code.ordinal() - KeyCode.DIGIT1.ordinal();
        if (digit >= 0 && digit < Outcomes.By.values().length) {
            choose(digit - by.ordinal());
            return true;
        }
        if (code == KeyCode.DOWN || code == KeyCode.UP) {
            list.move(code == KeyCode.DOWN ? 1 : -1);
            return true;
        }
        if (code == KeyCode.ESCAPE) {
            go.ledger();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        turn++;
    }
}
