package org.greenbead.app.shell;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javafx.beans.value.ObservableBooleanValue;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;
import org.slf4j.LoggerFactory;

/** Sounds for somebody who looks through a microscope: a soft tick, two tones, an urgent call. Silent where there is no sound device. */
public final class Cues implements AutoCloseable {
    private static final float RATE = 22_050;
    private final ObservableBooleanValue mute;
    private final ExecutorService speaker = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("cues").factory());
    private volatile boolean silent;

    /** What is to be heard. */
    public enum Cue {
        /** A stage has ended. */
        TICK(new double[]{880}, 0.05),
        /** Something asks for care, or moving is safe. */
        TWO_TONE(new double[]{660, 880}, 0.12),
        /** A stop. */
        URGENT(new double[]{988, 740, 988, 740}, 0.14);

        private final double[] tonesHz;
        private final double toneS;

        Cue(double[] tonesHz, double toneS) {
            this.tonesHz = tonesHz;
            this.toneS = toneS;
        }
    }

    Cues(ObservableBooleanValue mute) {
        this.mute = mute;
    }

    /** On the FX thread; returns at once. */
    public void play(Cue cue) {
        if (!mute.get() && !silent) {
            speaker.execute(() -> sound(cue));
        }
    }

    private void sound(Cue cue) {
        var format = new AudioFormat(RATE, 16, 1, true, false);
        try (SourceDataLine line = AudioSystem.getSourceDataLine(format)) {
            line.open(format);
            line.start();
            for (double hz : cue.tonesHz) {
                byte[] wave = wave(hz, cue.toneS);
                line.write(wave, 0, wave.length);
            }
            line.drain();
        } catch (LineUnavailableException | IllegalArgumentException e) {
            silent = true;
            LoggerFactory.getLogger(Cues.class).info("no sound here: {}", e.getMessage());
        }
    }

    /** A tone that swells and fades, so that it does not click. */
    static byte[] wave(double hz, double seconds) {
        int n = (int) (RATE * seconds);
        byte[] wave = new byte[2 * n];
        for (int i = 0; i < n; i++) {
            double swell = Math.sin(Math.PI * i / n);
            short value = (short) (9000 * swell * Math.sin(2 * Math.PI * hz * i / RATE));
            wave[2 * i] = (byte) value;
            wave[2 * i + 1] = (byte) (value >> 8);
        }
        return wave;
    }

    @Override
    public void close() {
        speaker.shutdownNow();
    }
}
