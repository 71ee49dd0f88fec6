package org.greenbead.worlds;

import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.Painted;

/** Photos by the painter of the demo: a simple world with no clutter. It draws no strays. */
public final class PaintedWorld implements World {
    @Override
    public String name() {
        return "painted";
    }

    @Override
    public MadePhoto photo(ChipScene scene, double ballPx, Random random) {
        double perMm = ballPx / scene.usualMm();
        var pose = new Painted.Pose(perMm, random.nextInt(4) * 90 + 12 * random.nextGaussian(),
                9 * random.nextDouble(), random.nextBoolean() ? 0 : random.nextDouble(),
                0.5 + random.nextDouble(), 0.002 + 0.01 * random.nextDouble(), random.nextLong(),
                random.nextInt(4) == 0 ? random.nextDouble() : 0);
        Map<String, Painted.Wrong> as = new HashMap<>();
        for (Site s : scene.map().sites()) {
            ChipScene.Ball b = scene.balls().get(s.name());
            as.put(s.name(), b == null
                    ? new Painted.Wrong(0, 0, 0)
                    : new Painted.Wrong(b.diameterMm() / s.diameterMm().orElseThrow(), b.xMm() - s.xMm(),
                            b.yMm() - s.yMm()));
        }
        var bare = new ChipScene(scene.map(), scene.balls(), scene.necks(), java.util.List.of(),
                scene.truth(), scene.between());
        Painted.Truth truth = Painted.balls(scene.map(), as,
                scene.necks().stream().map(n -> new String[]{n.from(), n.to()}).toList(), pose);
        Map<String, double[]> sites = MadePhoto.sites(scene, truth::seen);
        return new MadePhoto(truth.width(), truth.height(), truth.rgb(), bare, sites, truth.outlines(),
                java.util.List.of());
    }
}
