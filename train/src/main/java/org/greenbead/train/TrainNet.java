package org.greenbead.train;

import ai.djl.Model;
import ai.djl.engine.Engine;
import ai.djl.ndarray.NDArray;
import ai.djl.ndarray.NDList;
import ai.djl.ndarray.NDManager;
import ai.djl.ndarray.types.Shape;
import ai.djl.nn.Activation;
import ai.djl.nn.Block;
import ai.djl.nn.Blocks;
import ai.djl.nn.SequentialBlock;
import ai.djl.nn.convolutional.Conv2d;
import ai.djl.nn.core.Linear;
import ai.djl.nn.norm.BatchNorm;
import ai.djl.nn.pooling.Pool;
import ai.djl.training.DefaultTrainingConfig;
import ai.djl.training.GradientCollector;
import ai.djl.training.Trainer;
import ai.djl.training.loss.Loss;
import ai.djl.training.optimizer.Optimizer;
import ai.djl.training.tracker.Tracker;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;

/**
 * Trains the photo judge: {@code TrainNet EPOCHS OUT LEFT_OUT_FILE|- [from=NET] FILE...}. The last twentieth of each file is held back; what is
 * left out is scored at the threshold that calls three good sites in a thousand of what was held back bad. With {@code from}, weights that are
 * there already (their norms taken in) are trained onwards, at a fifteenth of the rate.
 */
public final class TrainNet {
    private static final int BATCH = 96;
    private static final float MOST_RATE = 3e-3f;
    private static final int CLASSES = 6;
    static final int OUTPUTS = 18;

    private final List<Object[]> layers = new ArrayList<>();
    private final SequentialBlock net = new SequentialBlock();
    private final boolean onwards;

    /** @param onwards norms are in the weights already */
    private TrainNet(boolean onwards) {
        this.onwards = onwards;
        conv(16, 5, 2, 1);
        separable(16, 32);
        pool(true);
        separable(32, 64);
        separable(64, 64);
        pool(true);
        separable(64, 96);
        separable(96, 96);
        pool(false);
        net.add(Blocks.batchFlattenBlock());
        dense(64, true);
        dense(OUTPUTS, false);
    }

    private void separable(int in, int out) {
        conv(in, 3, 1, in);
        conv(out, 1, 1, 1);
    }

    private void conv(int filters, int kernel, int stride, int groups) {
        Conv2d conv = Conv2d.builder().setKernelShape(new Shape(kernel, kernel)).setFilters(filters)
                .optStride(new Shape(stride, stride)).optPadding(new Shape(kernel / 2, kernel / 2))
                .optGroups(groups)
                .optBias(onwards).build();
        BatchNorm norm = onwards ? null : BatchNorm.builder().optMomentum(0.95f).build();
        // After the mask of a separable pair nothing is cut off; after all else, what is below nothing is.
        boolean cut = groups == 1;
        net.add(conv);
        if (norm != null) {
            net.add(norm);
        }
        if (cut) {
            net.add(Activation.reluBlock());
        }
        layers.add(new Object[]{groups > 1 ? 1 : 0, conv, norm, kernel, stride, cut});
    }

    private void pool(boolean most) {
        Shape two = new Shape(2, 2);
        net.add(most ? Pool.maxPool2dBlock(two, two) : Pool.avgPool2dBlock(two, two));
        layers.add(new Object[]{most ? 2 : 3});
    }

    private void dense(int units, boolean cut) {
        Linear linear = Linear.builder().setUnits(units).build();
        net.add(linear);
        if (cut) {
            net.add(Activation.reluBlock());
        }
        layers.add(new Object[]{4, linear, cut});
    }

    public static void main(String[] args) throws IOException {
        int epochs = Integer.parseInt(args[0]);
        var files = new ArrayList<Views>();
        Optional<Path> from = args[3].startsWith("from=")
                ? Optional.of(Path.of(args[3].substring(5)))
                : Optional.empty();
        for (int i = from.isPresent() ? 4 : 3; i < args.length; i++) {
            files.add(Views.read(Path.of(args[i])));
        }
        Views other = args[2].equals("-") ? null : Views.read(Path.of(args[2]));
        var train = new ArrayList<int[]>();
        var held = new ArrayList<int[]>();
        for (int f = 0; f < files.size(); f++) {
            for (int i = 0; i < files.get(f).size(); i++) {
                (i < files.get(f).size() * 19 / 20 ? train : held).add(new int[]{f, i});
            }
        }
        Engine.getInstance().setRandomSeed(7);
        new TrainNet(from.isPresent()).run(epochs, files, train, held, other, from, Path.of(args[1]));
    }

    private void run(int epochs, List<Views> files, List<int[]> train, List<int[]> held, Views other,
            Optional<Path> from, Path out)
            throws IOException {
        int steps = epochs * (train.size() / BATCH);
        var random = new Random(11);
        try (Model model = Model.newInstance("judge")) {
            model.setBlock(net);
            var config = new DefaultTrainingConfig(Loss.l2Loss()).optOptimizer(Optimizer.adam()
                    .optLearningRateTracker(rate(steps)).optWeightDecays(1e-5f).build());
            try (Trainer trainer = model.newTrainer(config)) {
                trainer.initialize(new Shape(BATCH, MakeViews.CHANNELS, MakeViews.SIDE, MakeViews.SIDE));
                if (from.isPresent()) {
                    load(from.get());
                    score(trainer, files, held, Double.NaN, "before");
                }
                for (int epoch = 0; epoch < epochs; epoch++) {
                    java.util.Collections.shuffle(train, random);
                    double sum = 0;
                    int count = train.size() / BATCH;
                    for (int b = 0; b < count; b++) {
                        sum += step(trainer, files, train.subList(b * BATCH, (b + 1) * BATCH), random);
                    }
                    System.out.printf(Locale.ROOT, "epoch %d loss %.4f%n", epoch, sum / count);
                    if (epoch % 3 == 2 || epoch == epochs - 1) {
                        export(out);
                    }
                }
                double cut = score(trainer, files, held, Double.NaN, "held back");
                for (int f = 0; f < files.size(); f++) {
                    int file = f;
                    score(trainer, files, held.stream().filter(h -> h[0] == file).toList(), cut,
                            "  file " + f);
                }
                if (other != null) {
                    var all = new ArrayList<int[]>();
                    for (int i = 0; i < other.size(); i++) {
                        all.add(new int[]{0, i});
                    }
                    score(trainer, List.of(other), all, cut, "left out");
                }
            }
        }
    }

    /** Up over a tenth, then down by the cosine (Loshchilov and Hutter 2017). */
    private Tracker rate(int steps) {
        float most = onwards ? MOST_RATE / 15 : MOST_RATE;
        return new Tracker() {
            @Override
            public float getNewValue(int update) {
                double t = Math.min(1, update / (double) steps);
                double up = Math.min(1, t / 0.08);
                return (float) (most * up * (0.01 + 0.99 * 0.5 * (1 + Math.cos(Math.PI * t))));
            }
        };
    }

    private double step(Trainer trainer, List<Views> files, List<int[]> batch, Random random) {
        try (NDManager m = trainer.getManager().newSubManager()) {
            float[] x = new float[batch.size() * MakeViews.VIEW];
            float[] y = new float[batch.size() * MakeViews.FLOATS];
            for (int i = 0; i < batch.size(); i++) {
                files.get(batch.get(i)[0]).turned(batch.get(i)[1], random, x, i, y);
            }
            NDArray in = m.create(x,
                    new Shape(batch.size(), MakeViews.CHANNELS, MakeViews.SIDE, MakeViews.SIDE));
            float[] one = new float[batch.size() * CLASSES];
            float[] there = new float[batch.size()];
            float[] size = new float[batch.size()];
            float[] place = new float[2 * batch.size()];
            float[] joined = new float[8 * batch.size()];
            for (int i = 0; i < batch.size(); i++) {
                int at = i * MakeViews.FLOATS;
                one[i * CLASSES + (int) y[at]] = 1;
                there[i] = y[at + 1] > 0 ? 1 : 0;
                size[i] = y[at + 1] - 1;
                place[2 * i] = y[at + 2];
                place[2 * i + 1] = y[at + 3];
                System.arraycopy(y, at + 4, joined, 8 * i, 8);
            }
            int n = batch.size();
            try (GradientCollector gradients = trainer.newGradientCollector()) {
                NDArray o = trainer.forward(new NDList(in)).singletonOrThrow();
                NDArray cross = o.get(":, 0:6").logSoftmax(1).mul(m.create(one, new Shape(n, CLASSES))).sum()
                        .neg().div(n);
                NDArray is = m.create(there, new Shape(n, 1));
                NDArray spread = o.get(":, 9:10").clip(-5.5, 0.5);
                NDArray sized = o.get(":, 6:7").sub(m.create(size, new Shape(n, 1))).abs();
                NDArray fit = sized.mul(spread.neg().exp()).add(spread).mul(is).sum().div(n).mul(0.15)
                        .add(sized.mul(is).sum().div(n).mul(3));
                NDArray off = o.get(":, 7:9").sub(m.create(place, new Shape(n, 2))).abs().mul(is).sum().div(n)
                        .mul(2);
                NDArray z = o.get(":, 10:18");
                NDArray ways = Activation.softPlus(z).sub(z.mul(m.create(joined, new Shape(n, 8)))).sum()
                        .div(n).mul(0.3);
                NDArray loss = cross.add(fit).add(off).add(ways);
                gradients.backward(loss);
                float value = cross.getFloat();
                trainer.step();
                return value;
            }
        }
    }

    private double score(Trainer trainer, List<Views> files, List<int[]> which, double cut, String name) {
        double[] bad = new double[which.size()];
        int[] truth = new int[which.size()];
        int[] said = new int[which.size()];
        var wide = new ArrayList<Double>();
        int inside = 0;
        for (int from = 0; from < which.size(); from += 256) {
            List<int[]> batch = which.subList(from, Math.min(which.size(), from + 256));
            try (NDManager m = trainer.getManager().newSubManager()) {
                float[] x = new float[batch.size() * MakeViews.VIEW];
                float[] y = new float[batch.size() * MakeViews.FLOATS];
                for (int i = 0; i < batch.size(); i++) {
                    files.get(batch.get(i)[0]).plain(batch.get(i)[1], x, i, y);
                }
                float[] o = trainer.evaluate(new NDList(
                        m.create(x,
                                new Shape(batch.size(), MakeViews.CHANNELS, MakeViews.SIDE, MakeViews.SIDE))))
                        .singletonOrThrow().toFloatArray();
                for (int i = 0; i < batch.size(); i++) {
                    int at = i * OUTPUTS;
                    double sum = 0;
                    int best = 1;
                    for (int c = 0; c < CLASSES; c++) {
                        sum += Math.exp(o[at + c] - o[at]);
                        best = c > 0 && o[at + c] > o[at + best] ? c : best;
                    }
                    bad[from + i] = 1 - 1 / sum;
                    said[from + i] = best;
                    float[] t = Arrays.copyOfRange(y, i * MakeViews.FLOATS, (i + 1) * MakeViews.FLOATS);
                    truth[from + i] = (int) t[0];
                    if (truth[from + i] == 0) {
                        double miss = Math.abs(o[at + 6] + 1 - t[1]);
                        wide.add(miss);
                        inside += miss < Math.exp(o[at + 9]) * 1.08 ? 1 : 0;
                    }
                }
            }
        }
        double limit = cut;
        if (Double.isNaN(cut)) {
            double[] good = java.util.stream.IntStream.range(0, bad.length).filter(i -> truth[i] == 0)
                    .mapToDouble(i -> bad[i]).sorted().toArray();
            limit = good[(int) (good.length * 0.997)];
        }
        int[] count = new int[CLASSES];
        int[] found = new int[CLASSES];
        int[] kind = new int[CLASSES];
        for (int i = 0; i < bad.length; i++) {
            count[truth[i]]++;
            found[truth[i]] += bad[i] > limit ? 1 : 0;
            kind[truth[i]] += bad[i] > limit && said[i] == truth[i] ? 1 : 0;
        }
        double[] sorted = wide.stream().mapToDouble(d -> d).sorted().toArray();
        System.out.printf(Locale.ROOT,
                "%s: cut %.4f good called bad %d of %d; missing %d/%d small %d/%d large %d/%d displaced %d/%d bridged %d/%d, named right %s; size off mean %.4f p95 %.4f inside %.2f%n",
                name, limit, found[0], count[0], found[1], count[1], found[2], count[2], found[3], count[3],
                found[4],
                count[4], found[5], count[5], Arrays.toString(kind),
                Arrays.stream(sorted).average().orElse(0),
                sorted[(int) (sorted.length * 0.95)], inside / (double) sorted.length);
        return limit;
    }

    /** Layer by layer: kind, shape, weights as 16 bits, offsets as 32; norms are taken into the weights. */
    private void export(Path file) throws IOException {
        try (var out = new DataOutputStream(Files.newOutputStream(file))) {
            out.writeBytes("GBN1");
            out.writeInt(layers.size());
            for (Object[] l : layers) {
                int kind = (int) l[0];
                out.writeByte(kind);
                if (kind < 2) {
                    NDArray w = weights((Block) l[1], "weight");
                    long[] s = w.getShape().getShape();
                    float[] v = w.toFloatArray();
                    float[] bias = onwards
                            ? weights((Block) l[1], "bias").toFloatArray()
                            : taken((Block) l[2], v);
                    out.writeInt(bias.length);
                    out.writeInt((int) s[1]);
                    out.writeInt((int) l[3]);
                    out.writeInt((int) l[4]);
                    out.writeBoolean((boolean) l[5]);
                    numbers(out, v, bias);
                } else if (kind == 4) {
                    NDArray w = weights((Block) l[1], "weight");
                    out.writeInt((int) w.getShape().get(0));
                    out.writeInt((int) w.getShape().get(1));
                    out.writeBoolean((boolean) l[2]);
                    numbers(out, w.toFloatArray(), weights((Block) l[1], "bias").toFloatArray());
                }
            }
        }
    }

    /** Takes a norm into the weights before it; what is left of it is their offsets. */
    private static float[] taken(Block norm, float[] v) {
        float[] gamma = weights(norm, "gamma").toFloatArray();
        float[] beta = weights(norm, "beta").toFloatArray();
        float[] mean = weights(norm, "runningMean").toFloatArray();
        float[] var = weights(norm, "runningVar").toFloatArray();
        float[] bias = new float[gamma.length];
        int each = v.length / bias.length;
        for (int o = 0; o < bias.length; o++) {
            float by = (float) (gamma[o] / Math.sqrt(var[o] + 1e-5));
            bias[o] = beta[o] - mean[o] * by;
            for (int k = 0; k < each; k++) {
                v[o * each + k] *= by;
            }
        }
        return bias;
    }

    /** The inverse of {@link #export}, for a net without norms. */
    private void load(Path file) throws IOException {
        try (var in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file)))) {
            in.readFully(new byte[4]);
            if (in.readInt() != layers.size()) {
                throw new IOException(file + " is a net of another build");
            }
            for (Object[] l : layers) {
                if (in.readByte() != (int) l[0]) {
                    throw new IOException(file + " is a net of another build");
                }
                int kind = (int) l[0];
                if (kind < 2 || kind == 4) {
                    int outputs = in.readInt();
                    in.readFully(new byte[kind < 2 ? 4 + 4 + 4 + 1 : 4 + 1]);
                    numbers(in, weights((Block) l[1], "weight"));
                    float[] bias = new float[outputs];
                    for (int o = 0; o < outputs; o++) {
                        bias[o] = in.readFloat();
                    }
                    weights((Block) l[1], "bias").set(bias);
                }
            }
        }
    }

    private static void numbers(DataInputStream in, NDArray weights) throws IOException {
        float[] v = new float[(int) weights.size()];
        for (int k = 0; k < v.length; k++) {
            v[k] = Float.float16ToFloat(in.readShort());
        }
        weights.set(v);
    }

    private static void numbers(DataOutputStream out, float[] weights, float[] bias) throws IOException {
        for (float f : weights) {
            out.writeShort(Float.floatToFloat16(f));
        }
        for (float f : bias) {
            out.writeFloat(f);
        }
    }

    private static NDArray weights(Block block, String name) {
        return block.getDirectParameters().get(name).getArray();
    }
}
