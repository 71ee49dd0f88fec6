package org.greenbead.store;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveReference;

/** The start-up curves of all jobs, named by what is in them. */
public final class Curves {
    private static final String ENDING = ".csv";
    /** The newest of a board; more teach little and take long. */
    private static final int MOST = 12;
    private final ByContent files;

    Curves(Path folder) {
        files = new ByContent(folder, ENDING, "curve");
    }

    /**
     * Keeps a curve.
     *
     * @return the name it is found by
     * @throws BadFileException when it cannot be written
     */
    public String add(CurrentTrace trace) throws BadFileException {
        return files.add(CurrentCsv.print(trace).getBytes(StandardCharsets.UTF_8));
    }

    static String name(byte[] bytes) {
        return ByContent.name(bytes, ENDING);
    }

    void add(byte[] bytes) throws BadFileException {
        files.add(bytes);
    }

    public Optional<Path> find(String name) {
        return files.find(name);
    }

    /** @throws BadFileException when it is gone or damaged */
    public CurrentTrace read(String name) throws BadFileException {
        Path file = find(name).orElseThrow(() -> new BadFileException(name, 0, "",
                "the curve is not there any more", "Record it once more"));
        return CurrentCsv.read(file);
    }

    /** What healthy boards do, of those curves that can still be read and were taken as the one in hand; empty where there is none. */
    public Optional<CurveReference> reference(List<String> names, CurrentTrace inHand) {
        var all = new ArrayList<CurrentTrace>();
        for (String name : names.reversed()) {
            try {
                CurrentTrace one = read(name);
                // What is not noted is like anything: the ones that are kept must be like one another too.
                if (all.size() < MOST && CurveReference.starts(one) && one.under().alike(inHand.under())
                        && all.stream().allMatch(a -> a.under().alike(one.under()))) {
                    all.add(one);
                }
            } catch (BadFileException e) {
                // One that is gone or damaged is no reference; the others are.
            }
        }
        return all.isEmpty() ? Optional.empty() : Optional.of(CurveReference.of(all));
    }
}
