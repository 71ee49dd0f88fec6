package org.greenbead.core.electric;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.greenbead.core.electric.TestLog.Common;
import org.greenbead.core.electric.TestLog.Result;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Logs of several hands, none of which the reader was made for, read for what they say. */
public class TestLogTest {
    @DataProvider
    public Object[][] logs() {
        return new Object[][]{
                {"two passes, clean", """
                        testing 3.8 GB of RAM
                        walking ones ......... ok
                        Pass 1 complete, 0 errors
                        moving inversions .... ok
                        Pass 2 complete, 0 errors
                        """, Result.PASS, 2, 0},
                {"counts at the end", "blocks 4096\n3 passes done\nerrors: 0\n", Result.PASS, 3, 0},
                {"words alone", "memory check finished: 1 pass, no errors", Result.PASS, 1, 0},
                {"begun, never over", "Pass 1 of 4 running\n12 %\n48 %\n", Result.NOT_TOLD, 0, 0},
                {"cut before the end", "Pass 1 complete, 0 errors\nPass 2: 31 %\n", Result.PASS, 1, 0},
                {"empty", "\n \n", Result.NOT_TOLD, 0, 0},
                {"a count of errors", "pass 2 complete\nerrors found: 14", Result.FAIL, 2, 14},
                {"failing lines", """
                        Pass 1 complete
                        FAIL at 0x1A2B3C40 expected 0xFFFFFFFF read 0xFFFDFFFF
                        FAIL at 0x1A2B3C44 expected 0xFFFFFFFF read 0xFFFDFFFF
                        """, Result.FAIL, 1, 2},
                {"corrected ones count too", "pass 1 ok\ncorrected errors: 3", Result.FAIL, 1, 3},
                {"a heading is no error", "Address   Expected   Found   Errors\npass 1 done, no errors",
                        Result.PASS, 1, 0},
                {"a step of a pass is no pass", "Pass 1, test 3 of 9 done, 0 errors\npass 1 block 7 ok",
                        Result.NOT_TOLD,
                        0, 0},
                {"of how many", "loop 2 of 4: done, no errors", Result.PASS, 2, 0},
                {"silent about errors", "pass 1 done\npass 2 done", Result.NOT_TOLD, 2, 0},
                {"errors in other words", "pass 1 done\ncell 17 lost its charge", Result.NOT_TOLD, 1, 0},
                {"failed in words", "data line test FAILED\n", Result.FAIL, 0, 1},
        };
    }

    @Test(dataProvider = "logs")
    public void isReadForWhatItSays(String what, String text, Result result, int passes, int errors) {
        TestLog log = TestLog.read(text);
        assertEquals(log.result(), result, what + ": " + log);
        assertEquals(log.passes().orElse(0), passes, what);
        assertEquals(log.errors(), errors, what);
    }

    /** A bit that hangs is told as one line whatever was written; the addresses that are told bound the place. */
    @Test
    public void oneHangingBitIsOneLine() {
        var random = new Random(3);
        for (int bit = 0; bit < 32; bit++) {
            var text = new StringBuilder("ddr test\n");
            long least = Long.MAX_VALUE;
            for (int i = 0; i < 20; i++) {
                long wrote = random.nextLong() & 0xFFFFFFFFL & ~(1L << bit);
                long at = 0x10_0000L + random.nextInt(1 << 28);
                least = Math.min(least, at);
                text.append(String.format("error address 0x%08x wrote %08x read %08x%n", at, wrote,
                        wrote | 1L << bit));
            }
            TestLog log = TestLog.read(text.toString());
            assertEquals(log.common(), Common.ONE_LINE, text.toString());
            assertEquals(log.where(), bit);
            assertEquals(log.low().orElseThrow(), least);
            assertTrue(log.memory());
            assertEquals(log.errors(), 20);
            assertEquals(log.first().size(), TestLog.MOST_SHOWN);
        }
    }

    /** Bits of one group of eight are one chip's; of several they are nobody's alone. */
    @Test
    public void groupsAreTold() {
        TestLog lane = TestLog.read("error at 0x00200000 expected 0x00000000 got 0x00210000\n"
                + "error at 0x00300000 expected 0xFFFFFFFF got 0xFF7FFFFF");
        assertEquals(lane.common(), Common.ONE_LANE);
        assertEquals(lane.where(), 2);
        TestLog wide = TestLog.read("error at 0x00200000 expected 0x00000000 got 0x80000001");
        assertEquals(wide.common(), Common.WIDE);
        assertEquals(TestLog.read("3 errors").common(), Common.NOT_TOLD);
        assertFalse(TestLog.read("fan soak finished, pass 1 over").memory());
    }
}
