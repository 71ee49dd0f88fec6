package org.greenbead.app.prove;

import java.awt.image.BufferedImage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.proof.JobSummary;
import org.greenbead.core.proof.ReportLanguage;
import org.greenbead.core.quantity.Words;
import org.greenbead.store.CustomerReport;
import org.greenbead.store.PdfPages;
import org.greenbead.store.SafeFiles;

/** The customer's report as it will be handed out: its pages, what it still lacks, and one press that keeps it as a file. */
public final class ReportPage extends Page {
    private static final float DPI = 110;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label said = Looks.note("said");
    private final Label number = Looks.label("", "muted", "small");
    private final ImageView sheet = new ImageView();
    private final ScrollPane scroll;
    private final VBox side = new VBox(8);
    private final VBox page;
    private final Subscription watching;
    private List<BufferedImage> pages = List.of();
    private byte[] pdf = {};
    private int at;
    private int turn;

    public ReportPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("report-title");
        said.setId("report-said");
        number.setId("report-number");
        sheet.setId("report-sheet");
        sheet.setPreserveRatio(true);
        sheet.setSmooth(true);
        var paper = new StackPane(sheet);
        paper.setAlignment(Pos.TOP_CENTER);
        scroll = Looks.as(new ScrollPane(paper), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.widthProperty().subscribe(w -> sheet.setFitWidth(Math.max(200, (w.doubleValue() - 24))));
        HBox.setHgrow(scroll, Priority.ALWAYS);
        side.setPrefWidth(250);
        side.setMinWidth(200);
        var middle = new HBox(10, scroll, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(3, Looks.label(texts.get("custom.caps"), "caps"), title, number),
                "instruction");
        page = Looks.as(new VBox(head, middle, said, Looks.label(texts.get("custom.keys"), "muted", "small")),
                "page");
        backWord(texts.get("book.back"));
        noteWord(texts.get("custom.note"));
        watching = Subscription.combine(model.jobProperty().subscribe(j -> make()),
                model.findingsProperty().subscribe(this::findings));
    }

    private record Made(JobSummary summary, byte[] pdf, List<BufferedImage> pages) {}

    private void make() {
        Texts texts = desk.texts();
        int mine = ++turn;
        title.setText(texts.get("custom.making"));
        said.setText("");
        pedal(Pedal.shut(texts.get("custom.making"), texts.get("custom.making.so")));
        String job = model.job().id();
        Words words = texts.words();
        Locale language = language();
        Instant now = desk.clock().instant();
        desk.io(() -> {
            CustomerReport.Source source = CustomerReport.gather(desk.ledger(), job, now);
            byte[] bytes = CustomerReport.pdf(source, words.in(language));
            return new Made(JobSummary.of(source.job(), source.strands(), source.healthy(), words), bytes,
                    PdfPages.of(bytes, DPI));
        }, m -> {
            if (mine == turn) {
                show(m);
            }
        }, failed -> {
            if (mine == turn) {
                title.setText(texts.get("custom.failed"));
                said.setText(String.valueOf(failed.getMessage()));
            }
        });
    }

    private void show(Made m) {
        Texts texts = desk.texts();
        pdf = m.pdf();
        pages = m.pages();
        at = Math.clamp(at, 0, pages.size() - 1);
        title.setText(m.summary().line());
        side.getChildren().setAll(languages());
        side.getChildren()
                .add(card(texts.get("custom.lacks"), m.summary().open(), nothingOpen(m.summary().answer())));
        side.getChildren()
                .add(card(texts.get("custom.mind"), m.summary().mind(), texts.get("custom.mind.none")));
        turn(0);
        pedal(new Pedal(texts.get("custom.keep"), texts.get("custom.keep.so"), true, this::keep));
    }

    /** Where nothing was repaired nothing has to be shown; that is not the same as everything tested. */
    private String nothingOpen(JobSummary.Answer answer) {
        return desk.texts().get(answer == JobSummary.Answer.EXAMINED || answer == JobSummary.Answer.DECLINED
                ? "custom.lacks.no_repair"
                : "custom.lacks.none");
    }

    private Locale language() {
        return ReportLanguage.of(desk.settings().reportLanguage().get()).orElse(Locale.ENGLISH);
    }

    /** A press makes it in another language; the next one is made in that, too. */
    private VBox languages() {
        Texts texts = desk.texts();
        var keys = new FlowPane(6, 6);
        List<Locale> all = ReportLanguage.shipped();
        for (int i = 0; i < all.size(); i++) {
            Locale language = all.get(i);
            var key = Looks.as(
                    new ToggleButton((i + 1) + "  " + ReportLanguage.itself(language, texts.words())), "act",
                    "small");
            key.setId("report-in-" + language.getLanguage());
            key.setSelected(language.equals(language()));
            key.setOnAction(press -> speak(language));
            keys.getChildren().add(key);
        }
        return Looks.as(new VBox(5, Looks.label(texts.get("custom.language"), "caps"), keys,
                Looks.label(texts.get("custom.language.so"), "muted", "small")), "card");
    }

    private void speak(Locale language) {
        desk.settings().reportLanguage().set(language.getLanguage());
        at = 0;
        make();
    }

    private static VBox card(String caps, List<String> lines, String none) {
        var card = Looks.as(new VBox(5, Looks.label(caps, "caps")), "card");
        lines.stream().limit(6).forEach(l -> card.getChildren().add(Looks.label(l, "text-ink", "small")));
        if (lines.isEmpty()) {
            card.getChildren().add(Looks.label(none, "muted", "small"));
        }
        return card;
    }

    private void turn(int by) {
        if (!pages.isEmpty()) {
            at = Math.floorMod(at + by, pages.size());
            sheet.setImage(SwingFXUtils.toFXImage(pages.get(at), null));
            scroll.setVvalue(0);
            number.setText(desk.texts().get("custom.page", at + 1, pages.size()));
        }
    }

    private void keep() {
        Texts texts = desk.texts();
        byte[] bytes = pdf;
        String tag = language().equals(Locale.ENGLISH) ? "" : "-" + language().getLanguage();
        String name = "report-" + model.job().id().toLowerCase(Locale.ROOT) + tag + ".pdf";
        String job = model.job().id();
        desk.io(() -> {
            Path folder = Files.createDirectories(desk.ledger().folder().resolve("exports"));
            Path file = folder.resolve(name);
            SafeFiles.write(file, bytes);
            desk.ledger().reported(job, name);
            return file;
        }, file -> said.setText(texts.get("custom.kept", file.toString())),
                failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.home();
    }

    @Override
    public void note() {
        go.proofs();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        int digit = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) - 1 : -1;
        if (digit >= 0 && digit < ReportLanguage.shipped().size()) {
            speak(ReportLanguage.shipped().get(digit));
            return true;
        }
        switch (code) {
            case PAGE_DOWN, RIGHT -> turn(1);
            case PAGE_UP -> turn(-1);
            case DOWN -> scroll.setVvalue(Math.min(1, scroll.getVvalue() + 0.25));
            case UP -> scroll.setVvalue(Math.max(0, scroll.getVvalue() - 0.25));
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        turn++;
        watching.unsubscribe();
    }
}
