package org.greenbead.core.run;

import org.greenbead.core.thermal.HeatModel;

/** Joints of a chip at a moment, °C: the coldest, the hottest, and one at a corner, which is where an eye can look. */
public record JointField(double minC, double maxC, double cornerC) {
    public static JointField of(HeatModel model) {
        return new JointField(model.jointMinC(), model.jointMaxC(), model.jointCornerC());
    }

    double acrossK() {
        return maxC - minC;
    }

    /** Part of the way to a later one. */
    public JointField towards(JointField later, double share) {
        return new JointField(minC + share * (later.minC - minC), maxC + share * (later.maxC - maxC),
                cornerC + share * (later.cornerC - cornerC));
    }
}
