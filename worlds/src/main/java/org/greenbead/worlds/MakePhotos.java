package org.greenbead.worlds;

import java.io.IOException;
import java.nio.file.Path;

/** {@code MakePhotos WORLD FIRST_SEED COUNT FAULTS FOLDER}: photos with truth, for {@link Score}. */
public final class MakePhotos {
    private MakePhotos() {
    }

    /** The worlds by name. */
    public static World world(String name) {
        return switch (name) {
            case "traced" -> new TracedWorld(8);
            case "composite" -> new CompositeWorld();
            case "painted" -> new PaintedWorld();
            case "mirrored" -> new MirroredWorld();
            default -> throw new IllegalArgumentException(
                    "no world is named " + name + "; there are traced, composite, mirrored and painted");
        };
    }

    public static void main(String[] args) throws IOException {
        double faults = Double.parseDouble(args[3]);
        Album.make(world(args[0]), Long.parseLong(args[1]), Integer.parseInt(args[2]),
                new ChipScene.Lot(7, 14, faults, faults > 0 ? 0.8 : 0), new double[]{13, 40},
                Path.of(args[4]));
    }
}
