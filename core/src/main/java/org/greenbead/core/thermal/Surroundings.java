package org.greenbead.core.thermal;

/** What the faces of a {@link SheetGrid} exchange heat with. */
interface Surroundings {
    /** Moves heater, nozzle and whatever else has a lag on by a step. */
    void advance(HeatInput input, double stepS);

    /**
     * @param surfaceC where each face's outermost skin is now, °C
     * @param hWPerM2K from that skin outwards, filled in; above 0
     * @param refC     what it is exchanged with, filled in
     * @param supportC temperature of the support, °C
     */
    void exchange(double[] surfaceC, double[] hWPerM2K, double[] refC, double supportC);

    double heaterC();

    double airExitC();

    /** An independent one in the same state. */
    Surroundings copy();
}
