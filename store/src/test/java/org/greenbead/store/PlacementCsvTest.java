package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Placement;
import org.greenbead.core.board.Side;
import org.greenbead.core.chip.ChipLabel;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Things that come in from outside: placements and pictures; and labels that go out. */
public class PlacementCsvTest {
    private static final String HEAD = "ref,x_mm,y_mm,rotation,side,package\n";
    private final OpenFiles files = new OpenFiles();

    private Board board() throws BadFileException {
        return new DemoWorld(files).plan("SB-0417", "lift_run").board();
    }

    @Test
    public void partsComeOntoTheBoard() throws Exception {
        List<Placement> read = PlacementCsv.parse(HEAD
                + "C1,10,20,90,top,C_0402\nJ4,30.5,88,0,T,Conn_8x3\nU1,36,58,0,top,BGA\nBT1,50,10,0,bottom,CoinCell\n",
                "p.csv", PlacementCsv.Unit.MM);
        PlacementCsv.Placed placed = PlacementCsv.onto(board(), read, "p.csv", PlacementCsv.Unit.MM);
        var c1 = placed.board().parts().stream().filter(p -> p.name().equals("C1")).findFirst().orElseThrow();
        assertEquals(c1.sizeMm().xMm(), 0.5, 1e-9);
        var j4 = placed.board().parts().stream().filter(p -> p.name().equals("J4")).findFirst().orElseThrow();
        assertEquals(j4.kind(), "connector, softens", "what a person wrote of it stays");
        assertEquals(j4.centreMm().xMm(), 30.5);
        assertEquals(placed.board().parts().stream().filter(p -> p.name().equals("BT1")).findFirst()
                .orElseThrow().side(), Side.BOTTOM);
        assertEquals(placed.sizeAssumed(), List.of("BT1"));
        assertTrue(placed.moved().isEmpty(), "U1 stands where the file says");
        assertEquals(files.parse(files.write(Format.BOARD, placed.board()), "b", Format.BOARD, Board.class),
                placed.board());
    }

    @Test
    public void inchesAreConvertedWhenSaid() throws Exception {
        Placement p = PlacementCsv.parse(HEAD + "C1,1.5,2,0,top,0402\n", "p.csv", PlacementCsv.Unit.INCH)
                .getFirst();
        assertEquals(p.centreMm().xMm(), 38.1, 1e-9);
        assertEquals(PlacementCsv.parse(HEAD + "C1,1500,2,0,top,0402\n", "p.csv", PlacementCsv.Unit.MIL)
                .getFirst().centreMm().xMm(), 38.1, 1e-9);
    }

    @DataProvider
    Object[][] bad() {
        return new Object[][]{
                {"ref,x_in,y_in,rotation,side,package\nC1,1,1,0,top,0402\n", "inches", "--unit inch"},
                {"a,b\n1,2\n", "header", "ref,x_mm"}, {"", "empty", "ref,x_mm"},
                {HEAD + "C1,1,1,0,top\n", "columns", "ref,x_mm"},
                {HEAD + "C1,12mm,1,0,top,0402\n", "no number", "unit out"},
                {HEAD + "C1,NaN,1,0,top,0402\n", "no number", "12.5"},
                {HEAD + "C1,1,1,0,left,0402\n", "no side", "top or bottom"},
                {HEAD + "C1,1,1,0,top,0402\nC1,2,2,0,top,0402\n", "stands twice", "own designator"},
                {HEAD + ",1,1,0,top,0402\n", "empty", "Correct"},
                {HEAD + "C1,1e9,1,0,top,0402\n", "in range", "12.5"},
                {HEAD + "C1,1,1,9999,top,0402\n", "rotation", "Correct"},
                {HEAD + "C1,90,20,0,top,0402\n", "off the board", "origin"},
                {HEAD + "C1,-3,20,0,top,0402\n", "off the board", "unit"},
                {HEAD + "C1,0.5,1,0,top,0402\nC2,0.6,1.2,0,top,0402\nC3,1.1,2,0,top,0402\nC4,1.4,2.2,0,top,0402\nC5,2,3,0,top,0402\n",
                        "look like inches", "--unit inch"},
                {HEAD + "\"C1,1,1,0,top,0402\n", "columns", "ref,x_mm"}};
    }

    @Test(dataProvider = "bad")
    public void saysWhatIsWrongAndWhatToDo(String text, String what, String remedy) {
        BadFileException e = expectThrows(BadFileException.class, () -> PlacementCsv.onto(board(),
                PlacementCsv.parse(text, "p.csv", PlacementCsv.Unit.MM), "p.csv", PlacementCsv.Unit.MM));
        assertTrue(e.getMessage().contains(what) && e.remedy().contains(remedy), e.getMessage());
        assertEquals(e.file(), "p.csv");
    }

    private static byte[] image(String format, int w, int h) throws Exception {
        var out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB), format, out);
        return out.toByteArray();
    }

    @Test
    public void pictureIsKeptOnceUnderItsContent() throws Exception {
        Path folder = Folders.fresh();
        try {
            var photos = new Photos(folder.resolve("photos"));
            Path shot = Files.write(folder.resolve("IMG 1.JPG"), image("jpg", 40, 30));
            Photos.Photo one = photos.add(shot);
            assertEquals(one.widthPx(), 40);
            assertTrue(one.name().endsWith(".jpg"));
            assertEquals(photos.add(shot), one);
            assertEquals(Files.readAllBytes(photos.find(one.name()).orElseThrow()), Files.readAllBytes(shot));
            assertTrue(photos.find("../IMG 1.JPG").isEmpty(), "no path leads out");
            Path lie = Files.write(folder.resolve("lie.png"),
                    "no picture".getBytes(java.nio.charset.StandardCharsets.UTF_8));
            assertTrue(expectThrows(BadFileException.class, () -> photos.add(lie)).getMessage()
                    .contains("no PNG or JPEG"));
            byte[] whole = image("png", 400, 300);
            Path cut = Files.write(folder.resolve("cut.png"), Arrays.copyOf(whole, whole.length / 2));
            assertTrue(expectThrows(BadFileException.class, () -> photos.add(cut)).getMessage()
                    .contains("cut off"));
            assertTrue(expectThrows(BadFileException.class, () -> photos.add(folder)).getMessage()
                    .contains("folder"));
            assertTrue(expectThrows(BadFileException.class, () -> photos.add(folder.resolve("gone.png")))
                    .getMessage().contains("no such file"));
        } finally {
            Folders.remove(folder);
        }
    }

    /** A picture that claims a hundred thousand pixels each way is refused before it is unpacked. */
    @Test
    public void pictureBombIsRefusedByItsHeader() throws Exception {
        byte[] png = image("png", 8, 8);
        for (int at : new int[]{16, 20}) {
            png[at] = 0;
            png[at + 1] = 1;
            png[at + 2] = (byte) 0x86;
            png[at + 3] = (byte) 0xA0;
        }
        assertTrue(expectThrows(BadFileException.class, () -> Photos.look(png, "bomb.png")).remedy()
                .length() > 5);
    }

    @Test
    public void demoPhotoLiesWhereItsCornersSay() throws Exception {
        Board board = board();
        DemoPhoto photo = DemoPhoto.of(board, 5);
        List<Px> corners = Arrays.stream(photo.corners().split(";")).map(c -> c.strip().split(","))
                .map(c -> new Px(Double.parseDouble(c[0]), Double.parseDouble(c[1]))).toList();
        BufferedImage image = ImageIO.read(new java.io.ByteArrayInputStream(photo.png()));
        Px middle = Squared.of(corners, board.sizeMm()).toPx(board.chips().getFirst().centreMm());
        int rgb = image.getRGB((int) middle.x(), (int) middle.y());
        assertTrue((rgb >> 16 & 255) < 80 && (rgb & 255) < 80,
                "the processor is dark where the map says it lies");
    }

    @Test
    public void labelsAreReadBackByAScanner() throws Exception {
        var chips = new ArrayList<StockChip>();
        for (int n : new int[]{41, 42, 9999}) {
            chips.add(new StockChip(new ChipLabel(n).text(), "QX-510", 528, 14, StockChip.Origin.OWN, "WB-7",
                    StockChip.Place.TRAY, "A1",
                    StockChip.Health.UNKNOWN, "", "", "", 0, 0, java.util.Optional.empty(), List.of()));
        }
        byte[] pdf = LabelSheet.pdf(chips, c -> List.of("own, unknown", "tray A1 → bench 球"));
        try (var document = Loader.loadPDF(pdf)) {
            BufferedImage page = new PDFRenderer(document).renderImageWithDPI(0, 200);
            int w = page.getWidth() / 3;
            int h = page.getHeight() / 8;
            for (int i = 0; i < 3; i++) {
                BufferedImage one = page.getSubimage(i * w, 0, w, h + 90);
                int[] pixels = one.getRGB(0, 0, one.getWidth(), one.getHeight(), null, 0, one.getWidth());
                String read = new QRCodeReader().decode(
                        new BinaryBitmap(new HybridBinarizer(
                                new RGBLuminanceSource(one.getWidth(), one.getHeight(), pixels))),
                        Map.of(DecodeHintType.TRY_HARDER, true)).getText();
                assertEquals(read, chips.get(i).label());
            }
        }
    }
}
