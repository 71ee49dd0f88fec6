package org.greenbead.device;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** The camera folder and the voice. */
public class BenchSidesTest {
    private Path folder;

    @BeforeMethod
    public void prepare() throws IOException {
        folder = Files.createTempDirectory("camera");
    }

    @AfterMethod
    public void remove() throws IOException {
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }

    @Test
    public void newPictureCountsOnceItHasStoppedGrowing() throws Exception {
        Files.write(folder.resolve("old.jpg"), new byte[3]);
        var camera = new CameraFolder(folder);
        assertEquals(camera.look(), List.of(), "what lay there is old");
        Path shot = Files.write(folder.resolve("IMG_1.JPG"), new byte[100]);
        Files.write(folder.resolve("notes.txt"), new byte[5]);
        assertEquals(camera.look(), List.of(), "it may still be written");
        Files.write(shot, new byte[200]);
        assertEquals(camera.look(), List.of(), "it has grown");
        assertEquals(camera.look(), List.of(shot));
        assertEquals(camera.look(), List.of(), "once only");
    }

    @Test
    public void folderThatIsGoneIsSaid() throws Exception {
        Path inner = Files.createDirectory(folder.resolve("in"));
        var camera = new CameraFolder(inner);
        Files.delete(inner);
        assertTrue(expectThrows(IOException.class, camera::look).getMessage().contains("choose it again"));
        expectThrows(IOException.class, () -> new CameraFolder(folder.resolve("none")));
    }

    @Test
    public void wordsGoToTheProgramByAPipe() throws Exception {
        Path said = folder.resolve("said");
        try (var speaker = new Speaker(Optional.of(List.of("sh", "-c", "cat > '" + said + "'")))) {
            speaker.say("three; $(rm x)");
            assertTrue(speaker.await(20));
        }
        assertEquals(Files.readString(said), "three; $(rm x)");
    }

    @Test
    public void programIsLookedForOnThePath() throws Exception {
        assertEquals(Speaker.find("Linux", folder.toString()), Optional.empty());
        Path program = Files.writeString(folder.resolve("espeak-ng"), "#!/bin/sh\n");
        assertTrue(program.toFile().setExecutable(true));
        assertEquals(Speaker.find("Linux", "/nowhere:" + folder).orElseThrow().getFirst(), "espeak-ng");
        assertEquals(Speaker.find("Windows 11", "").orElseThrow().getFirst(), "powershell");
        var silent = new Speaker(Optional.empty());
        assertFalse(silent.speaks());
        silent.say("nothing");
        new Speaker(Optional.of(List.of("/no/such/program"))).say("nothing either");
    }
}
