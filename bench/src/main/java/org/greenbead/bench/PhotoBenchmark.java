package org.greenbead.bench;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.Painted;
import org.greenbead.core.inspect.Raster;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** A photo of 1,200 balls at five megapixels, judged. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 6)
@Measurement(iterations = 5)
@Fork(1)
public class PhotoBenchmark {
    private BeadMap map;
    private Raster photo;

    @Setup
    public void paint() {
        map = BeadMap.grid(37, 37, 0.65, Optional.of(0.4)).without(RowNames.site(12, 12),
                RowNames.site(24, 24));
        photo = Painted.balls(map, Map.of(), List.of(), new Painted.Pose(62, 2, 3, 0.1, 0.9, 0.004, 1))
                .picture();
    }

    @Benchmark
    public BeadReport judged() throws UnclearPhotoException {
        return BeadCheck.of(photo, map);
    }
}
