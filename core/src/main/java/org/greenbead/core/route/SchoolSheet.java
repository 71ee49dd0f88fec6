package org.greenbead.core.route;

import org.greenbead.core.quantity.Words;

/** The text of docs/schools.md: points on which practice differs, what each way costs, and our default. */
public final class SchoolSheet {
    private SchoolSheet() {
    }

    public static String of(Words words) {
        var out = new StringBuilder("# Ways of working\n\n");
        out.append(
                "Able technicians differ on these points. A route offers each way with what it costs; another way than the usual one is "
                        + "chosen with a reason, which stays with the job. Choosing may change the steps of the route and says facts to the rule book. "
                        + "This page is made by `./greenbead schools --markdown docs/schools.md`.\n");
        for (School school : Schools.shipped().all()) {
            out.append("\n## ").append(words.say("school." + school.id())).append("\n\n`").append(school.id())
                    .append("`, chosen at ").append(words.say("bead." + school.bead())).append(".\n\n");
            for (School.Choice choice : school.choices()) {
                String key = "school." + school.id() + "." + choice.id();
                out.append("- **").append(words.say(key)).append("**")
                        .append(choice.id().equals(school.standard()) ? " (usual)" : "").append(": ")
                        .append(words.say(key + ".costs"));
                choice.in().ifPresent(p -> out.append(" Takes in the steps of \"").append(p).append("\"."));
                if (!choice.facts().isEmpty() && !choice.facts().endsWith("=")) {
                    out.append(" Says `").append(choice.facts()).append("`.");
                }
                out.append('\n');
            }
        }
        return out.toString();
    }
}
