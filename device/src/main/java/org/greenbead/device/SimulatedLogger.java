package org.greenbead.device;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.SimulatedBench;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A Modbus TCP server on loopback whose input and holding registers show a simulated bench: signed tenths of a degree,
 * 32767 for an open circuit. It owns its sockets, so that a dropped link is really dropped. Modbus messaging on TCP/IP V1.0b;
 * functions 3 and 4, anything else is answered with exception 1.
 */
public final class SimulatedLogger implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(SimulatedLogger.class);
    private static final int OPEN = 32767;
    private static final int CHANNELS = 32;
    private final AtomicReference<SimulatedBench> bench = new AtomicReference<>();
    private final AtomicReference<List<ProbePlace>> probes = new AtomicReference<>(List.of());
    private final ServerSocket server;
    private final Set<Socket> clients = ConcurrentHashMap.newKeySet();

    /** Listens on a free port of the loopback address. */
    public SimulatedLogger() throws IOException {
        server = new ServerSocket(0, 8, InetAddress.getLoopbackAddress());
        Thread.ofPlatform().daemon().name("simulated-logger").start(this::accept);
    }

    /** Puts the probes on another bench. */
    public void show(SimulatedBench newBench, List<ProbePlace> places) {
        probes.set(List.copyOf(places));
        bench.set(newBench);
    }

    public int port() {
        return server.getLocalPort();
    }

    public LoggerConfig config() {
        return LoggerConfig.loopback(port());
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Socket client = server.accept();
                clients.add(client);
                Thread.ofVirtual().start(() -> serve(client));
            } catch (IOException e) {
                if (!server.isClosed()) {
                    LOG.warn("simulated logger: {}", e.getMessage());
                }
            }
        }
    }

    private void serve(Socket client) {
        try (client;
                var in = new DataInputStream(client.getInputStream());
                var out = new DataOutputStream(client.getOutputStream())) {
            client.setTcpNoDelay(true);
            while (true) {
                int transaction = in.readUnsignedShort();
                int protocol = in.readUnsignedShort();
                int length = in.readUnsignedShort();
                if (protocol != 0 || length < 2 || length > 260) {
                    return;
                }
                byte[] body = in.readNBytes(length);
                if (body.length < length || down()) {
                    return;
                }
                byte[] answer = answer(body);
                var frame = new java.io.ByteArrayOutputStream();
                var data = new DataOutputStream(frame);
                data.writeShort(transaction);
                data.writeShort(0);
                data.writeShort(answer.length);
                data.write(answer);
                out.write(frame.toByteArray());
                out.flush();
            }
        } catch (IOException e) {
            LOG.debug("client gone: {}", e.getMessage());
        } finally {
            clients.remove(client);
        }
    }

    private boolean down() {
        SimulatedBench now = bench.get();
        return now != null && now.linkDown();
    }

    private byte[] answer(byte[] body) {
        int function = body[1] & 0xFF;
        if (function != 3 && function != 4 || body.length != 6) {
            return new byte[]{body[0], (byte) (function | 0x80), 1};
        }
        int first = (body[2] & 0xFF) << 8 | body[3] & 0xFF;
        int count = (body[4] & 0xFF) << 8 | body[5] & 0xFF;
        if (count < 1 || count > 125 || first + count > CHANNELS) {
            return new byte[]{body[0], (byte) (function | 0x80), 2};
        }
        int[] registers = registers();
        byte[] answer = new byte[3 + 2 * count];
        answer[0] = body[0];
        answer[1] = body[1];
        answer[2] = (byte) (2 * count);
        for (int i = 0; i < count; i++) {
            answer[3 + 2 * i] = (byte) (registers[first + i] >> 8);
            answer[4 + 2 * i] = (byte) registers[first + i];
        }
        return answer;
    }

    private int[] registers() {
        int[] registers = new int[CHANNELS];
        Arrays.fill(registers, OPEN);
        SimulatedBench now = bench.get();
        if (now != null) {
            try {
                for (Reading reading : now.sweep()) {
                    for (ProbePlace place : probes.get()) {
                        if (place.name().equals(reading.probe()) && reading instanceof Reading.Measured m) {
                            registers[place.channel() - 1] = (int) Math.round(m.celsius() * 10);
                        }
                    }
                }
            } catch (LinkLostException e) {
                Arrays.fill(registers, OPEN);
            }
        }
        return registers;
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Socket client : clients) {
            client.close();
        }
    }
}
