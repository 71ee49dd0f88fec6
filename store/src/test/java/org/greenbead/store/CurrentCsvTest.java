package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Optional;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.SimulatedStart;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CurrentCsvTest {
    @DataProvider
    public Object[][] dialects() {
        return new Object[][]{
                {"time_s,current_a\n0,0.002\n0.5,0.004\n1,0.25\n1.5,0.3\n2,0.3\n"},
                {"\uFEFFTime (ms);Current (mA)\r\n0;2\r\n500;4\r\n1000;250\r\n1500;300,0\r\n2000;3,0e2\r\n"},
                {"Time [s]\tvolts\tCurrent [A]\n0\t12\t0,002\n0,5\t12\t0,004\n1\t12\t0,25\n1,5\t12\t0,3\n2\t12\t0,3\n"},
                {"# supply_v = 12\n\n# a note\ncurrent_ma,t_ms\n2,0\n4,500\n250,1000\n300,1500\n300,2000\n"}};
    }

    @Test(dataProvider = "dialects")
    public void dialectsReadAlike(String text) throws BadFileException {
        CurrentTrace trace = CurrentCsv.parse(text, "curve.csv");
        assertEquals(trace.timeS(), new double[]{0, 0.5, 1, 1.5, 2}, 1e-9);
        assertEquals(trace.ampere(), new double[]{0.002, 0.004, 0.25, 0.3, 0.3}, 1e-9);
    }

    @DataProvider
    public Object[][] bad() {
        return new Object[][]{{"", "there is no column"}, {"time,current_a\n0,1\n", "does not say its unit"},
                {"time_s,volts\n0,1\n", "current: there is no column"},
                {"time_s,current_a\n0,0\n1,0\n0.5,0\n", "line 4, time: time goes from 1.0 s to 0.5 s"},
                {"time_s,current_a\n0,0\n1,-\n", "line 3, current: \"-\" is no number"},
                {"time_s,current_a\n0,0\n1,0\n", "at least 5 samples"},
                {"time_s,current_a\n0,0\n1,500\n2,0\n3,0\n4,0\n", "current is 500 A"},
                {"# limit_a = much\ntime_s,current_a\n0,0\n1,0\n2,0\n3,0\n4,0\n",
                        "limit_a: \"much\" is no number"},
                {"time_s,current_a\n0,0\n1,0\n2,0\n3,0\n9000,0\n", "no longer than an hour"}};
    }

    @Test(dataProvider = "bad")
    public void nonsenseIsNamed(String text, String said) {
        BadFileException e = expectThrows(BadFileException.class, () -> CurrentCsv.parse(text, "curve.csv"));
        assertTrue(e.getMessage().contains(said), e.getMessage());
    }

    @Test
    public void whatIsWrittenIsReadAgain() throws BadFileException {
        CurrentTrace trace = new SimulatedStart(12, 3, SimulatedStart.Fault.NONE).trace(4, 20);
        CurrentTrace again = CurrentCsv.parse(CurrentCsv.print(trace), "curve.csv");
        assertEquals(again.timeS(), trace.timeS(), 6e-4);
        assertEquals(again.ampere(), trace.ampere(), 6e-5);
        assertEquals(again.under(), trace.under());
    }

    @Test
    public void gapsAreKnown() throws BadFileException {
        CurrentTrace trace = CurrentCsv.parse("time_s,current_a\n0,0\n1,0\n4.5,0\n5,0\n6,0\n", "curve.csv");
        assertEquals(trace.gaps().size(), 1);
        assertEquals(trace.gaps().getFirst(), new double[]{1, 4.5}, 1e-9);
        assertEquals(trace.under().supplyV(), Optional.empty());
    }
}
