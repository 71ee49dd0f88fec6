package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.greenbead.core.thermal.Heating;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.RingModel;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The thermal model against an independent three-dimensional solution, through the files that users write. */
public class RehearsalFileTest {
    private final OpenFiles files = new OpenFiles();

    private static String text(String name) throws IOException {
        try (InputStream in = RehearsalFileTest.class
                .getResourceAsStream("/org/greenbead/store/heating/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private Heating heating(String name) throws IOException, BadFileException {
        return files.parse(text(name + ".json"), name, Format.REHEARSAL, RehearsalFile.class).heating();
    }

    @DataProvider
    Object[][] samples() {
        // Root mean square and peak that the ring form may be off at the joint's centre and on the package, K; measured, with a margin.
        return new Object[][]{{"small-board-preheat-and-air", 2.5, 3.5, 2.5},
                {"cool-down-fan", 2.0, 3.0, 2.0}, {"strip-on-hot-plate", 2.0, 2.5, 2.0},
                {"large-board-stepped-preheat", 6.5, 8.5, 6.5}};
    }

    @Test(dataProvider = "samples")
    public void ringModelFollowsTheThreeDimensionalSolution(String name, double rmsK, double peakK,
            double topRmsK) throws IOException, BadFileException {
        Heating heating = heating(name);
        Heating.Traces traces = heating.run(new RingModel(heating.scene(), Multipliers.NOMINAL), d -> {
        }, () -> false);
        List<NamedCsvRecord> truth;
        try (var csv = CsvReader.builder().ofNamedCsvRecord(text(name + ".csv"))) {
            truth = csv.stream().toList();
        }
        assertEquals(traces.rows().size(), truth.size());
        double squares = 0;
        double topSquares = 0;
        double peak = 0;
        double truePeak = 0;
        for (int i = 0; i < truth.size(); i++) {
            double joint = Double.parseDouble(truth.get(i).getField("joint_centre_c"));
            double top = Double.parseDouble(truth.get(i).getField("package_top_c"));
            assertEquals(traces.rows().get(i).timeS(), Double.parseDouble(truth.get(i).getField("time_s")),
                    1e-3);
            squares += Math.pow(traces.rows().get(i).jointCentreC() - joint, 2);
            topSquares += Math.pow(traces.rows().get(i).packageTopC() - top, 2);
            peak = Math.max(peak, traces.rows().get(i).jointCentreC());
            truePeak = Math.max(truePeak, joint);
        }
        assertTrue(Math.sqrt(squares / truth.size()) < rmsK,
                "joint rms " + Math.sqrt(squares / truth.size()));
        assertTrue(Math.sqrt(topSquares / truth.size()) < topRmsK,
                "top rms " + Math.sqrt(topSquares / truth.size()));
        assertEquals(peak, truePeak, peakK, "peak");
        assertTrue(traces.energy().error() < 0.005);
    }

    @Test
    public void tracesAreWrittenWithTheColumnsOfTheFormat() throws IOException, BadFileException {
        Heating heating = heating("small-board-preheat-and-air");
        Heating.Traces traces = heating.run(new RingModel(heating.scene(), Multipliers.NOMINAL), d -> {
        }, () -> false);
        var out = new StringWriter();
        TraceCsv.write(traces, out);
        assertEquals(out.toString().lines().findFirst().orElseThrow(),
                text("small-board-preheat-and-air.csv").lines().findFirst().orElseThrow());
        assertEquals(out.toString().lines().count(), 422);
    }

    @Test
    public void cancelKeepsTheRowsSoFar() throws IOException, BadFileException {
        Heating heating = heating("cool-down-fan");
        int[] asked = {0};
        Heating.Traces part = heating.run(new RingModel(heating.scene(), Multipliers.NOMINAL), d -> {
        }, () -> asked[0]++ >= 10);
        assertEquals(part.rows().size(), 11);
    }

    @DataProvider
    Object[][] cannot() {
        return new Object[][]{{"\"role\": \"target\"", "\"role\": \"neighbour\"", "exactly one"},
                {"\"center_mm\": [32, 58], \"segments\"", "\"center_mm\": [12, 58], \"segments\"",
                        "off the target"},
                {"\"output_step_s\": 1",
                        "\"output_step_s\": 1, \"shields\": [{\"rect_mm\": [0,0,5,5], \"gap_mm\": 0.2, \"emissivity\": 0.1}]",
                        "shields are not modelled"},
                {"\"output_step_s\": 1", "\"output_step_s\": 1, \"support\": {}",
                        "support block is not modelled"}};
    }

    @Test(dataProvider = "cannot")
    public void whatTheModelCannotFollowIsRefused(String replace, String with, String words)
            throws IOException, BadFileException {
        String compact = text("small-board-preheat-and-air.json").replaceAll("\\s+", " ")
                .replaceAll("\\[ ", "[").replaceAll(" \\]", "]");
        assertTrue(compact.contains(replace), "the sample holds " + replace);
        RehearsalFile read = files.parse(compact.replace(replace, with), "x", Format.REHEARSAL,
                RehearsalFile.class);
        var e = expectThrows(IllegalArgumentException.class, read::heating);
        assertTrue(e.getMessage().contains(words), e.getMessage());
    }

    @Test
    public void heaterStepsKeepTheirOrder() throws IOException, BadFileException {
        Heating heating = heating("large-board-stepped-preheat");
        assertTrue(heating.heaterSteps().size() > 1);
        var turned = heating.heaterSteps().reversed();
        expectThrows(IllegalArgumentException.class,
                () -> new Heating("x", "x", heating.scene(), 10, 1, turned, List.of(), List.of()));
    }
}
