package org.greenbead.device;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.thermal.HeatInput;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The adapter against the simulated logger, over a real socket, on good days and bad ones. */
public class ModbusLoggerTest {
    private SimulatedBench bench;
    private SimulatedLogger server;
    private ModbusLogger logger;

    @BeforeMethod
    public void connect() throws IOException {
        bench = new SimulatedBench(Plans.small(), 3);
        server = new SimulatedLogger();
        server.show(bench, Plans.probes());
        logger = new ModbusLogger(server.config(), Plans.probes());
    }

    @AfterMethod
    public void close() throws IOException {
        logger.close();
        server.close();
    }

    @Test
    public void readsWhatTheBenchShows() throws LinkLostException {
        bench.set(HeatInput.of(Optional.of(200.0), Optional.empty()));
        for (int t = 1; t <= 30; t++) {
            bench.timeIs(t * 4);
            assertEquals(logger.sweep(), bench.sweep(), "at " + t * 4 + " s");
        }
        assertTrue(((Reading.Measured) logger.sweep().getFirst()).celsius() > 60);
    }

    @Test
    public void openCircuitIsAReading() throws LinkLostException {
        bench.breakProbe("board_under", true);
        assertEquals(logger.sweep().get(1), new Reading.Open("board_under"));
        assertTrue(logger.sweep().getFirst() instanceof Reading.Measured);
    }

    @Test
    public void comesBackByItselfAfterALostLink() throws LinkLostException {
        logger.sweep();
        bench.dropLink(true);
        for (int i = 0; i < 3; i++) {
            LinkLostException e = expectThrows(LinkLostException.class, logger::sweep);
            assertTrue(e.getMessage().contains("127.0.0.1") && e.getMessage().contains("Check its cable"),
                    e.getMessage());
        }
        bench.dropLink(false);
        assertEquals(logger.sweep(), bench.sweep());
    }

    @Test
    public void nobodyThereIsALostLink() throws IOException {
        int port;
        try (var free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        try (var alone = new ModbusLogger(LoggerConfig.loopback(port), Plans.probes())) {
            expectThrows(LinkLostException.class, alone::sweep);
        }
    }

    /** A logger that takes the question and never answers is asked once, and given up after its timeout: the run goes on. */
    @Test
    public void silentLoggerIsAskedOnceAndGivenUp() throws Exception {
        var asked = new CompletableFuture<byte[]>();
        try (var silent = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                try (Socket taken = silent.accept()) {
                    asked.complete(taken.getInputStream().readAllBytes());
                } catch (IOException e) {
                    asked.completeExceptionally(e);
                }
            });
            try (var waiting = new ModbusLogger(LoggerConfig.loopback(silent.getLocalPort()),
                    Plans.probes())) {
                expectThrows(LinkLostException.class, waiting::sweep);
            }
            // Seven bytes of header, then function, address and count: Modbus messaging on TCP/IP V1.0b, 3.1.3.
            assertEquals(asked.get(20, TimeUnit.SECONDS).length, 12);
            silent.setSoTimeout(1);
            expectThrows(java.net.SocketTimeoutException.class, silent::accept);
        }
    }

    /** What is added to the number of the question, the function, the registers that come back, and what is said. */
    @DataProvider
    Object[][] answers() {
        return new Object[][]{{1, 4, 8, "another question"}, {0, 4, 3, "short"}, {0, 3, 8, "another kind"},
                {0, 0x84, 0, "Illegal"}};
    }

    /** An answer that is not the one asked for is no reading. */
    @Test(dataProvider = "answers")
    public void otherAnswersAreNoReadings(int later, int function, int registers, String said)
            throws IOException {
        try (var other = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread.ofVirtual().start(() -> {
                try (Socket taken = other.accept()) {
                    byte[] asked = taken.getInputStream().readNBytes(12);
                    int body = registers > 0 ? 1 + 2 * registers : 1;
                    byte[] answer = new byte[8 + body];
                    System.arraycopy(asked, 0, answer, 0, 7);
                    answer[1] += (byte) later;
                    answer[5] = (byte) (2 + body);
                    answer[7] = (byte) function;
                    answer[8] = (byte) (registers > 0 ? 2 * registers : 2);
                    taken.getOutputStream().write(answer);
                    taken.getInputStream().readAllBytes();
                } catch (IOException e) {
                    // The client has given up.
                }
            });
            try (var asking = new ModbusLogger(LoggerConfig.loopback(other.getLocalPort()), Plans.probes())) {
                LinkLostException e = expectThrows(LinkLostException.class, asking::sweep);
                assertTrue(e.getMessage().contains(said), e.getMessage());
            }
        }
    }

    /** Answers as a sound logger would, with one byte changed or every byte apart. */
    private static void answering(ServerSocket server, int at, int value, long apartMs, int... registers) {
        Thread.ofVirtual().start(() -> {
            try (Socket taken = server.accept()) {
                byte[] asked = taken.getInputStream().readNBytes(12);
                byte[] answer = new byte[9 + 2 * registers.length];
                System.arraycopy(asked, 0, answer, 0, 8);
                answer[5] = (byte) (3 + 2 * registers.length);
                answer[8] = (byte) (2 * registers.length);
                for (int i = 0; i < registers.length; i++) {
                    answer[9 + 2 * i] = (byte) (registers[i] >> 8);
                    answer[10 + 2 * i] = (byte) registers[i];
                }
                if (at >= 0) {
                    answer[at] = (byte) value;
                }
                for (byte one : answer) {
                    taken.getOutputStream().write(one);
                    taken.getOutputStream().flush();
                    Thread.sleep(apartMs);
                }
                taken.getInputStream().readAllBytes();
            } catch (IOException e) {
                // The client has given up.
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
    }

    private static int span() {
        return Plans.probes().stream().mapToInt(ProbePlace::channel).max().orElseThrow()
                - Plans.probes().stream().mapToInt(ProbePlace::channel).min().orElseThrow() + 1;
    }

    /** Reply bytes that drip in renew no patience: the sweep ends when its time is up. */
    @Test
    public void drippingAnswerEndsOnTheDeadline() throws Exception {
        try (var slow = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            answering(slow, -1, 0, 300, new int[span()]);
            try (var asking = new ModbusLogger(LoggerConfig.loopback(slow.getLocalPort()), Plans.probes())) {
                var given = CompletableFuture.supplyAsync(() -> {
                    try {
                        return asking.sweep().toString();
                    } catch (LinkLostException e) {
                        return "given up";
                    }
                });
                // Thirteen bytes at 300 ms are four seconds; the deadline is half of one.
                assertEquals(given.get(2, TimeUnit.SECONDS), "given up");
            }
        }
    }

    @DataProvider
    Object[][] strangers() {
        return new Object[][]{{6, 9, "another unit"}, {3, 1, "another protocol"}};
    }

    @Test(dataProvider = "strangers")
    public void anotherUnitOrProtocolIsNoReading(int at, int value, String said) throws IOException {
        try (var other = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            answering(other, at, value, 0, new int[span()]);
            try (var asking = new ModbusLogger(LoggerConfig.loopback(other.getLocalPort()), Plans.probes())) {
                LinkLostException e = expectThrows(LinkLostException.class, asking::sweep);
                assertTrue(e.getMessage().contains(said) || e.getMessage().contains("protocol"),
                        e.getMessage());
            }
        }
    }

    /** What a logger writes where it has nothing is an open channel, whichever of them it uses. */
    @Test
    public void nothingIsNoTemperature() throws Exception {
        for (int nothing : new int[]{0x8000, 0xFFFF, 0x7FFF}) {
            try (var empty = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
                int[] registers = new int[span()];
                java.util.Arrays.fill(registers, 231);
                registers[0] = nothing;
                answering(empty, -1, 0, 0, registers);
                try (var asking = new ModbusLogger(LoggerConfig.loopback(empty.getLocalPort()),
                        Plans.probes())) {
                    List<Reading> readings = asking.sweep();
                    assertEquals(readings.stream().filter(Reading.Open.class::isInstance).count(), 1,
                            readings.toString());
                    assertTrue(readings.stream().filter(Reading.Measured.class::isInstance)
                            .allMatch(r -> ((Reading.Measured) r).celsius() == 23.1));
                }
            }
        }
    }

    @Test
    public void scalingSignAndHoldingRegistersAreFollowed() throws LinkLostException, IOException {
        LoggerConfig tenths = server.config();
        var hundredths = new LoggerConfig(tenths.format(), tenths.host(), tenths.port(), 1,
                LoggerConfig.Table.HOLDING, tenths.channels(), 0.01, 32767, 500, 500);
        try (var other = new ModbusLogger(hundredths, Plans.probes())) {
            double tenth = ((Reading.Measured) logger.sweep().getFirst()).celsius();
            double scaled = ((Reading.Measured) other.sweep().getFirst()).celsius();
            assertEquals(scaled, tenth / 10, 1e-9);
        }
    }

    @Test
    public void probeOnAnUnknownChannelIsRefused() {
        var stray = new ProbePlace("joint", ProbePlace.Role.JOINT, 30, Side.TOP, new Point(20, 20));
        var e = expectThrows(IllegalArgumentException.class,
                () -> new ModbusLogger(server.config(), List.of(stray)));
        assertTrue(e.getMessage().contains("channel 30"), e.getMessage());
    }

    @DataProvider
    Object[][] requests() {
        return new Object[][]{
                // function, address, count, and the function or exception that must come back
                {4, 0, 8, 4, 16}, {3, 2, 1, 3, 2}, {4, 30, 8, 0x84, 2}, {4, 0, 0, 0x84, 2},
                {1, 0, 8, 0x81, 1}, {16, 0, 1, 0x90, 1}};
    }

    /** Byte by byte, as the protocol's own specification has it. */
    @Test(dataProvider = "requests")
    public void serverSpeaksModbus(int function, int address, int count, int answers, int second)
            throws IOException {
        try (var socket = new Socket(InetAddress.getLoopbackAddress(), server.port())) {
            socket.setSoTimeout(3000);
            var out = new DataOutputStream(socket.getOutputStream());
            out.write(new byte[]{0x12, 0x34, 0, 0, 0, 6, 7, (byte) function, (byte) (address >> 8),
                    (byte) address, (byte) (count >> 8), (byte) count});
            out.flush();
            var in = new DataInputStream(socket.getInputStream());
            assertEquals(in.readUnsignedShort(), 0x1234);
            assertEquals(in.readUnsignedShort(), 0);
            int length = in.readUnsignedShort();
            byte[] body = in.readNBytes(length);
            assertEquals(body[0], 7);
            assertEquals(body[1] & 0xFF, answers);
            assertEquals(body[2] & 0xFF, second);
        }
    }

    @Test
    public void nonsenseClosesTheConnection() throws IOException {
        try (var socket = new Socket(InetAddress.getLoopbackAddress(), server.port())) {
            socket.setSoTimeout(3000);
            socket.getOutputStream().write(new byte[]{0, 1, 9, 9, 0, 6, 1, 4, 0, 0, 0, 1});
            assertEquals(socket.getInputStream().read(), -1);
        }
    }
}
