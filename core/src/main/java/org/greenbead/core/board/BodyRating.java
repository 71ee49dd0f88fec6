package org.greenbead.core.board;

/**
 * Package body peak by size: classification temperatures of IPC/JEDEC J-STD-020, tables 4-1 and 4-2 (verify against the current
 * edition). A label on the part outranks the table: a maker may rate a part lower or higher.
 */
public final class BodyRating {
    private BodyRating() {
    }

    /**
     * @param thicknessMm of the body without its balls, 0.1 to 20
     * @param volumeMm3   of the body without balls and without heat sink
     * @param leadFree    classified for lead-free assembly
     * @return °C
     */
    public static double peakC(double thicknessMm, double volumeMm3, boolean leadFree) {
        if (!leadFree) {
            return thicknessMm < 2.5 && volumeMm3 < 350 ? 235 : 220;
        }
        if (thicknessMm < 1.6) {
            return 260;
        }
        if (thicknessMm <= 2.5) {
            return volumeMm3 < 350 ? 260 : volumeMm3 <= 2000 ? 250 : 245;
        }
        return volumeMm3 < 350 ? 250 : 245;
    }
}
