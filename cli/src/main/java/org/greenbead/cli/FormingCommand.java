package org.greenbead.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.ActTable;
import org.greenbead.core.forming.Forming;
import org.greenbead.core.forming.Judged;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.ReleaseWarm;
import org.greenbead.core.forming.Stand;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** The order of acts at stencil and jig, without heat. */
@Command(name = "forming", mixinStandardHelpOptions = true, description = "Plays acts at the stencil or the jig (align fill wipe hold heat solid slide ...), says what each is in its state, then what may be done next; exit 1 when one of them was wrong. --markdown writes the whole table.")
final class FormingCommand extends Verb {
    /** Not an act of hands: the balls are solid. */
    private static final String SOLID = "solid";
    @Parameters(arity = "0..*", paramLabel = "ACT", description = "What is done, in order; \"solid\" says that the balls are solid, \"solid:95\" at 95 °C.")
    private List<String> acts = List.of();
    @Option(names = "--method", defaultValue = "paste", description = "paste or spheres (default ${DEFAULT-VALUE}).")
    private String method;
    @Option(names = "--alloy", defaultValue = "SAC305", description = "Of the balls (default ${DEFAULT-VALUE}).")
    private String alloy;
    @Option(names = "--shaping", description = "Begin with solid balls that are free: the second melt.")
    private boolean shaping;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
    private Path json;
    @Option(names = "--markdown", paramLabel = "OUT", description = "Write the table of all acts in all states.")
    private Path markdown;

    @Override
    public Integer call() throws Exception {
        if (markdown != null) {
            write(markdown, table());
            return 0;
        }
        Method way = one("--method", method, Method.values());
        Alloy balls = Alloys.require(alloy);
        Forming now = shaping ? Forming.shaping(way) : Forming.begin(way, false);
        OptionalDouble ballsC = OptionalDouble.empty();
        var played = new ArrayList<Map<String, Object>>();
        boolean wrong = false;
        for (String word : acts) {
            if (word.toLowerCase(Locale.ROOT).startsWith(SOLID)) {
                now = now.solid(0);
                String[] at = word.split(":");
                ballsC = at.length > 1
                        ? OptionalDouble.of(Double.parseDouble(at[1]))
                        : OptionalDouble.empty();
                continue;
            }
            Judged judged = now.ask(one("act", word, Act.values()), balls, ballsC);
            wrong |= judged.rating() == Judged.Rating.WRONG;
            played.add(json(judged));
            out().printf(Locale.ROOT, "%-9s %-11s %s  %s%n", small(now.stand()), small(judged.act()),
                    small(judged.rating()), why(judged));
            now = now.after(judged.act(), 0, balls);
        }
        ReleaseWarm window = ReleaseWarm.of(balls);
        out().printf(Locale.ROOT, "now %s; next: %s%n", small(now.stand()), small(now.next(balls, ballsC)));
        for (Judged judged : now.all(balls, ballsC)) {
            out().printf(Locale.ROOT, "  %-11s %-6s %s%n", small(judged.act()), small(judged.rating()),
                    why(judged));
        }
        if (window.possible()) {
            out().printf(Locale.ROOT,
                    "the stencil of %s comes off between %.0f and %.0f °C; air to warm it: %.0f °C%n",
                    balls.name(),
                    window.lowC(), window.highC(), window.airC());
        } else {
            out().printf(Locale.ROOT,
                    "%s softens at %.0f °C, no later than flux: take the stencil off cold, flux dissolved%n",
                    balls.name(), window.highC());
        }
        var result = new LinkedHashMap<String, Object>();
        result.put("played", played);
        result.put("stand", small(now.stand()));
        result.put("next", small(now.next(balls, ballsC)));
        result.put("restarts", now.restarts());
        result.put("may", now.all(balls, ballsC).stream().map(this::json).toList());
        result.put("release_low_c", window.lowC());
        result.put("release_high_c", window.highC());
        result.put("release_air_c", window.airC());
        json(json, result);
        return wrong ? 1 : 0;
    }

    private Map<String, Object> json(Judged judged) {
        return Map.of("act", small(judged.act()), "rating", small(judged.rating()), "why", why(judged));
    }

    private String why(Judged judged) {
        return judged.why().isEmpty() ? "" : words().say(judged.why());
    }

    private static String small(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static <E extends Enum<E>> E one(String what, String said, E[] known) {
        return java.util.Arrays.stream(known).filter(e -> e.name().equalsIgnoreCase(said)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException(what + " \"" + said + "\" is none of "
                        + java.util.Arrays.stream(known).map(FormingCommand::small)
                                .collect(Collectors.joining(", "))));
    }

    /** docs/forming-acts.md. */
    private String table() {
        var out = new StringBuilder(
                "# Acts at stencil and jig\n\nWhat each act of the hands is in each state. This page is made by "
                        + "`./greenbead forming --markdown docs/forming-acts.md`; docs/forming.md says how it is used.\n");
        for (Method way : Method.values()) {
            out.append("\n## ").append(way == Method.PASTE ? "Paste through a stencil" : "Spheres in a jig")
                    .append("\n");
            for (Act act : ActTable.shipped().acts(way)) {
                out.append("\n**").append(words().say("act." + small(way) + "." + small(act)))
                        .append("**\n\n");
                for (Stand stand : Stand.values()) {
                    Judged judged = ActTable.shipped().look(way, act, stand);
                    if (judged.rating() != Judged.Rating.IDLE) {
                        out.append("- ").append(words().say("stand." + small(way) + "." + small(stand)))
                                .append(": ").append(switch (judged.rating()) {
                                    case RIGHT -> "right. ";
                                    case CARE -> "at a price. ";
                                    default -> "wrong. ";
                                }).append(why(judged)).append('\n');
                    }
                }
            }
        }
        return out.toString();
    }
}
