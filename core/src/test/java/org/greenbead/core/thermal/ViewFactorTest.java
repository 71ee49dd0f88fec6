package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;

public class ViewFactorTest {
    @Test
    public void squarePlateAtADistanceOfItsSide() {
        assertEquals(ViewFactor.ofRectangle(0, 0, 100, 100, 100), 0.2395, 1e-4);
    }

    @Test
    public void faceOffTheMiddle() {
        assertEquals(ViewFactor.ofRectangle(20, -10, 100, 100, 30), 0.72548, 1e-5);
        assertEquals(ViewFactor.ofRectangle(-20, 10, 100, 100, 30), 0.72548, 1e-5);
    }

    @Test
    public void hugePlateIsAllThatIsSeen() {
        assertEquals(ViewFactor.ofRectangle(0, 0, 1e6, 1e6, 10), 1, 1e-6);
    }

    /** Two halves of a plate are the whole. */
    @Test
    public void partsAddUp() {
        double whole = ViewFactor.ofRectangle(13, 7, 80, 60, 12);
        double left = ViewFactor.ofRectangle(13 + 20, 7, 40, 60, 12);
        double right = ViewFactor.ofRectangle(13 - 20, 7, 40, 60, 12);
        assertEquals(left + right, whole, 1e-12);
        assertTrue(whole > 0 && whole < 1);
    }
}
