package org.greenbead.core.record;

import org.greenbead.core.quantity.Words;

/** The text of docs/records.md: every type of record with its fields, what each may hold and which fact it says. */
public final class RecordSheet {
    private RecordSheet() {
    }

    public static String of(Words words) {
        var out = new StringBuilder("# Records\n\n");
        out.append(
                "What people write down in a job. A record has an id, a time and an author beside its fields; a field that is left out "
                        + "is *not noted*, never zero. In a job file they stand under `records` as `{\"id\", \"type\", \"at\", \"author\", \"fields\"}`. "
                        + "Temperatures are in °C; `_mm`, `_s`, `_min`, `_ohm`, `_v`, `_a`, `_kpa`, `_pct`, `_deg` say the other units. A field that says a "
                        + "fact is seen by the rule book under that name. This page is made by `./greenbead records --markdown docs/records.md`.\n");
        for (RecordType type : RecordTypes.shipped().all()) {
            out.append("\n## ").append(type.id()).append(": ").append(words.say("record." + type.id()))
                    .append("\n\n").append(type.many() ? "Several in a job" : "One in a job")
                    .append("; asked for at ").append(String.join(", ", type.beads())).append(".\n\n")
                    .append("| field | holds | says | means |\n|---|---|---|---|\n");
            for (RecordType.Item item : type.fields()) {
                String holds = switch (item.field().kind()) {
                    case NUMBER -> "number";
                    case YES_NO -> "true, false";
                    case TEXT -> "text";
                    case WORD -> String.join(", ", item.field().words());
                    case WORDS -> item.field().words().isEmpty()
                            ? "list of texts"
                            : "list of " + String.join(", ", item.field().words());
                    case ITEMS -> "list";
                };
                out.append("| ").append(item.name()).append(" | ").append(holds).append(" | ")
                        .append(item.fact().map(f -> "`" + f + "`").orElse("")).append(" | ")
                        .append(words.say("record." + type.id() + "." + item.name())).append(" |\n");
            }
        }
        return out.toString();
    }
}
