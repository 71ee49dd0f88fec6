package org.greenbead.device;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongSupplier;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveCompare;
import org.greenbead.core.electric.CurveReference;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.run.LinkLostException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ScpiSupplyTest {
    /** A clock that goes on by 4 ms at each look, so that what is recorded hangs on no machine's speed. */
    private static LongSupplier clock() {
        var nanos = new AtomicLong();
        return () -> nanos.addAndGet(4_000_000);
    }

    private static ScpiSupply.Recorded recorded(SimulatedStart unit, double dropsAfterS)
            throws IOException, LinkLostException {
        LongSupplier clock = clock();
        try (var there = new SimulatedSupply(unit.trace(5, 22), clock, dropsAfterS);
                var supply = new ScpiSupply(there.host(), there.port(), clock)) {
            return supply.record(22, supply.conditions("battery out"), (t, a) -> {
            }, () -> false);
        }
    }

    /** Through the wire a healthy unit passes and a faulty one is named. */
    @Test
    public void recordedOverTheWireItIsToldAsItIs() throws Exception {
        var healthy = new SimulatedStart(12, 3, SimulatedStart.Fault.NONE);
        CurveReference reference = CurveReference
                .of(List.of(healthy.trace(1, 20), healthy.trace(2, 20), healthy.trace(3, 20)));
        ScpiSupply.Recorded good = recorded(healthy, Double.MAX_VALUE);
        assertEquals(good.broke(), Optional.empty());
        assertEquals(good.trace().under(), healthy.conditions());
        assertEquals(CurveCompare.of(good.trace(), reference).outcome(), CurveCompare.Outcome.ALIKE);
        ScpiSupply.Recorded bad = recorded(new SimulatedStart(12, 3, SimulatedStart.Fault.NO_MEMORY),
                Double.MAX_VALUE);
        assertEquals(CurveCompare.of(bad.trace(), reference).first().orElseThrow().kind(),
                CurveCompare.Kind.STAYS);
    }

    @Test
    public void aLostLinkLosesNothingThatWasRecorded() throws Exception {
        ScpiSupply.Recorded cut = recorded(new SimulatedStart(12, 3, SimulatedStart.Fault.NONE), 6);
        assertTrue(cut.broke().orElseThrow().contains("closed the link"), cut.broke().toString());
        assertTrue(cut.trace().durationS() > 4 && cut.trace().durationS() < 7,
                cut.trace().durationS() + " s");
    }

    @Test
    public void stopEndsIt() throws Exception {
        int[] seen = {0};
        LongSupplier clock = clock();
        try (var there = new SimulatedSupply(
                new SimulatedStart(12, 3, SimulatedStart.Fault.NONE).trace(5, 22), clock, Double.MAX_VALUE);
                var supply = new ScpiSupply(there.host(), there.port(), clock)) {
            CurrentTrace trace = supply.record(3600, CurrentTrace.Conditions.UNKNOWN, (t, a) -> seen[0]++,
                    () -> seen[0] >= 12).trace();
            assertEquals(trace.timeS().length, 12);
        }
    }

    @Test
    public void nobodyThereIsSaid() throws Exception {
        int free;
        try (var socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            free = socket.getLocalPort();
        }
        LinkLostException e = expectThrows(LinkLostException.class,
                () -> new ScpiSupply("127.0.0.1", free, System::nanoTime));
        assertTrue(e.getMessage().contains("no supply answers at 127.0.0.1:" + free), e.getMessage());
    }

    @DataProvider
    public Object[][] answers() {
        return new Object[][]{{"hello"}, {"9.91E37"}, {"9.9E37"}, {""}};
    }

    @Test(dataProvider = "answers")
    public void whatIsNoNumberIsNoReading(String answer) throws Exception {
        try (var server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                try (var client = server.accept()) {
                    client.getInputStream().read();
                    client.getOutputStream().write((answer + "\n").getBytes(StandardCharsets.US_ASCII));
                    client.getInputStream().readAllBytes();
                } catch (IOException e) {
                    // The test is over.
                }
            });
            try (var supply = new ScpiSupply("127.0.0.1", server.getLocalPort(), System::nanoTime)) {
                LinkLostException e = expectThrows(LinkLostException.class, () -> supply.conditions(""));
                assertTrue(e.getMessage().contains("which is no number"), e.getMessage());
                assertFalse(e.getMessage().contains("\n"), e.getMessage());
            }
        }
    }
}
