package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotSame;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.expectThrows;

import org.greenbead.core.board.Board;
import org.greenbead.core.route.Job;
import org.testng.annotations.Test;

public class ReadBeforeTest {
    private final OpenFiles files = new OpenFiles();

    private String board() throws Exception {
        return files.write(Format.BOARD, new DemoWorld(files).plan("SB-0417", "lift_run").board());
    }

    private Board read(String text) throws Exception {
        return files.parse(text, "board", Format.BOARD, Board.class);
    }

    @Test
    public void theSameLettersAreTheSameBoardAndOneOtherIsAnother() throws Exception {
        String text = board();
        Board first = read(text);
        assertSame(read(new String(text.toCharArray())), first);
        String title = first.title();
        Board other = read(text.replace(title, title + "!"));
        assertEquals(other.title(), title + "!");
        assertSame(read(text), first, "and back again");
    }

    @Test
    public void aTornTextAndAnotherFormatAreRefusedAsEver() throws Exception {
        String text = board();
        read(text);
        expectThrows(BadFileException.class, () -> read(text.substring(0, text.length() - 9)));
        BadFileException other = expectThrows(BadFileException.class,
                () -> files.parse(text, "bench", Format.BENCH, org.greenbead.core.bench.Bench.class));
        assertEquals(other.getMessage().contains("board"), true, other.getMessage());
    }

    @Test
    public void whatWasRefusedOnceIsRefusedAgain() throws Exception {
        String bad = board().replaceFirst("\"thickness_mm\" : [0-9.]+", "\"thickness_mm\" : 50");
        for (int i = 0; i < 2; i++) {
            assertEquals(expectThrows(BadFileException.class, () -> read(bad)).field(), "/thickness_mm");
        }
    }

    @Test
    public void olderOnesGoWhenThereAreManyAndJobsAreNotKept() throws Exception {
        String text = board();
        Board first = read(text);
        for (int i = 0; i < 70; i++) {
            read(text.replace(first.title(), "board " + i));
        }
        assertNotSame(read(text), first);
        assertEquals(read(text), first);
        String job = files.write(Format.JOB, new DemoWorld(files).plan("SB-0417", "lift_run").job());
        assertNotSame(files.parse(job, "job", Format.JOB, Job.class),
                files.parse(job, "job", Format.JOB, Job.class));
    }
}
