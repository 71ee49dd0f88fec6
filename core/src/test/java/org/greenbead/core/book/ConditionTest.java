package org.greenbead.core.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The small language of the book: blank is not zero, whichever way a comparison points. */
public class ConditionTest {
    private static final Facts FACTS = Facts.none()
            .with("a.n=7; a.yes=yes; a.no=no; a.word=data; a.list=[lead, port]; b.0.n=1; b.1.n=5; b.2.m=9;"
                    + " plan.steps=[copy, lift, seat]");

    private static Condition.Scope scope() {
        return new Condition.Scope(FACTS.spot(), Map.of(), Map.of("most", 6.0),
                new TradeFunctions(FACTS.spot()));
    }

    @DataProvider
    Object[][] conditions() {
        return new Object[][]{{"a.n > 6 and a.n <= 7", true}, {"a.n > $most", true}, {"a.n = 7", true},
                {"a.n != 7", false},
                {"a.missing > 0", false}, {"a.missing <= 0", false}, {"a.missing != 3", false},
                {"a.missing = 3", false},
                {"a.missing + 1 > 0", false}, {"not a.missing", true}, {"not a.yes", false},
                {"a.no = no", true}, {"a.missing = no", false},
                {"a.missing is empty", true}, {"a.n is not empty", true},
                {"a.word in ['data', 'parts']", true},
                {"a.missing in ['data']", false}, {"a.list has 'port'", true}, {"a.list has 'lock'", false},
                {"a.word has 'd'", false},
                {"a.n * 2 - 4 / 2 = 12", true}, {"(a.n - 8) * 2 < 0", true}, {"a.word < 3", false},
                {"any(b, x: x.n > 4)", true}, {"any(b, x: x.n > 5)", false},
                {"count(b, x: x.n > 0) = 2", true},
                {"before('copy', 'lift')", true}, {"before('lift', 'copy')", false},
                {"before('copy', 'sail')", false},
                {"planned('seat') and not planned('sail')", true}, {"a.no or a.yes", true},
                {"a.no or a.missing", false},
                {"abs(a.n - 10) = 3", true}, {"min(a.n, a.missing) > 0", false}, {"size(a.list) = 2", true}};
    }

    @Test(dataProvider = "conditions")
    public void means(String text, boolean holds) {
        assertEquals(new Condition(text).holds(scope()), holds);
    }

    @DataProvider
    Object[][] unreadable() {
        return new Object[][]{{""}, {"a.n >"}, {"a.n > 3 3"}, {"(a.n"}, {"a.word = 'open"}, {"nonsense(a.n)"},
                {"a.n in [1"}, {"and a.n"},
                {"any(b, x x.n)"}, {"a.n ? 2"}};
    }

    @Test(dataProvider = "unreadable")
    public void badTextIsRefused(String text) {
        assertThrows(IllegalArgumentException.class, () -> new Condition(text));
    }

    @Test
    public void factsAreChangedInACopy() {
        Facts changed = FACTS.with("a.n=; b.1.n=8; c.deep.er=x");
        assertEquals(FACTS.at("a.n").orElseThrow(), 7.0);
        assertTrue(changed.at("a.n").isEmpty());
        assertEquals(changed.at("b.1.n").orElseThrow(), 8.0);
        assertEquals(changed.at("c.deep.er").orElseThrow(), "x");
        assertEquals(changed.at("a.list").orElseThrow(), List.of("lead", "port"));
        assertFalse(changed.equals(FACTS));
        assertNull(changed.spot().field("zzz").field("y").value());
        assertThrows(IllegalArgumentException.class, () -> FACTS.with("nothing"));
        assertThrows(IllegalArgumentException.class, () -> FACTS.with("a.n.deeper=1"));
    }

    @Test
    public void factsThatDoNotFitAreNamed() {
        Vocabulary words = Vocabulary.ofTheTrade();
        Facts odd = Facts.none().with(
                "job.goal=glory; chip.pads=many; board.stacked=1; moon.phase=2; joints.0.colour=red; parts=[a];"
                        + " job.consent=[temporary, verbal]; plan.stages.0.target_c=240");
        assertEquals(words.misfits(odd).stream().map(Vocabulary.Misfit::pointer).toList(),
                List.of("/job/goal", "/job/consent", "/chip/pads",
                        "/board/stacked", "/moon", "/joints/0/colour", "/parts/0"));
        assertTrue(words.misfits(odd).getFirst().remedy().contains("capacity"));
        assertEquals(words.find("plan.stages.target_c").orElseThrow().kind(), Vocabulary.Kind.NUMBER);
        assertTrue(words.find("plan.stages.colour").isEmpty());
    }
}
