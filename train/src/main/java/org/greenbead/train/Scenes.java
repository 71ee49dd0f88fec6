package org.greenbead.train;

import java.io.BufferedOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.greenbead.worlds.ChipScene;
import org.greenbead.worlds.MadePhoto;
import org.greenbead.worlds.MakePhotos;
import org.greenbead.worlds.World;

/** Photos by lot, each handed on as it is made: world, first seed, count, file. */
final class Scenes {
    private Scenes() {
    }

    interface Writer {
        void write(MadePhoto photo, Random random, DataOutputStream out) throws IOException;
    }

    /** @param leastPx width of a ball at least, @param times that at most */
    static void write(String[] args, ChipScene.Lot lot, double leastPx, double times, Writer writer)
            throws IOException {
        World world = MakePhotos.world(args[0]);
        long first = Long.parseLong(args[1]);
        int scenes = Integer.parseInt(args[2]);
        try (var out = new DataOutputStream(
                new BufferedOutputStream(Files.newOutputStream(Path.of(args[3])), 1 << 20))) {
            for (int i = 0; i < scenes; i++) {
                var random = new Random(first + i);
                ChipScene scene = ChipScene.drawn(random, lot);
                double ballPx = leastPx * Math.exp(random.nextDouble() * Math.log(times));
                writer.write(world.photo(scene, ballPx, random), random, out);
            }
        }
    }
}
