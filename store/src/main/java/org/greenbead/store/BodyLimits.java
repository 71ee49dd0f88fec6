package org.greenbead.store;

import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.BodyRating;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A chip whose file gives no body limit gets the one that its thickness and volume are classified for. */
final class BodyLimits {
    private BodyLimits() {
    }

    /** @param board a board that its schema has passed; anything else is left as it is */
    static void fill(JsonNode board) {
        for (JsonNode chip : board.path("chips")) {
            if (chip instanceof ObjectNode object && object.path("body_limit_c").isMissingNode()) {
                object.put("body_limit_c", classified(object));
            }
        }
    }

    private static double classified(ObjectNode chip) {
        double thicknessMm = 0;
        boolean leadFree = true;
        for (JsonNode layer : chip.path("layers")) {
            if (layer.path("type").asString("").equals("joint")) {
                leadFree &= Alloys.find(layer.path("alloy").asString("")).map(a -> !a.hasPb()).orElse(true);
            } else {
                thicknessMm += layer.path("thickness_mm").asDouble(0);
            }
        }
        JsonNode size = chip.path("size_mm");
        return BodyRating.peakC(thicknessMm,
                thicknessMm * size.path(0).asDouble(0) * size.path(1).asDouble(0),
                leadFree);
    }
}
