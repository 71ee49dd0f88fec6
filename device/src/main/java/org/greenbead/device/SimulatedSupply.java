package org.greenbead.device;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.function.LongSupplier;
import org.greenbead.core.electric.CurrentTrace;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A SCPI supply on loopback with a made-up unit at it, whose button is pressed two seconds after somebody connects. */
public final class SimulatedSupply implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(SimulatedSupply.class);
    private final CurrentTrace unit;
    private final LongSupplier nanos;
    private final double dropsAfterS;
    private final ServerSocket server;

    /** @param dropsAfterS when it drops the link; infinite = never */
    public SimulatedSupply(CurrentTrace unit, LongSupplier nanos, double dropsAfterS) throws IOException {
        this.unit = unit;
        this.nanos = nanos;
        this.dropsAfterS = dropsAfterS;
        server = new ServerSocket(0, 4, InetAddress.getLoopbackAddress());
        Thread.ofPlatform().daemon().name("simulated-supply").start(this::accept);
    }

    public String host() {
        return server.getInetAddress().getHostAddress();
    }

    public int port() {
        return server.getLocalPort();
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Socket client = server.accept();
                Thread.ofVirtual().start(() -> serve(client));
            } catch (IOException e) {
                if (!server.isClosed()) {
                    LOG.warn("simulated supply: {}", e.getMessage());
                }
            }
        }
    }

    private void serve(Socket client) {
        long start = nanos.getAsLong();
        try (client;
                var in = new BufferedReader(
                        new InputStreamReader(client.getInputStream(), StandardCharsets.US_ASCII));
                OutputStream out = client.getOutputStream()) {
            client.setTcpNoDelay(true);
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                double t = (nanos.getAsLong() - start) / 1e9;
                if (t > dropsAfterS) {
                    return;
                }
                String answer = switch (line.strip().toUpperCase(Locale.ROOT)) {
                    case "*IDN?" -> "SKERRY,SIMULATED SUPPLY,0,1";
                    case "VOLT?" -> scientific(unit.under().supplyV().orElse(0.0));
                    case "CURR?" -> scientific(unit.under().limitA().orElse(0.0));
                    case "MEAS:CURR?" -> scientific(at(t));
                    default -> "-113";
                };
                out.write((answer + "\n").getBytes(StandardCharsets.US_ASCII));
                out.flush();
            }
        } catch (IOException e) {
            LOG.debug("simulated supply: {}", e.getMessage());
        }
    }

    private static String scientific(double value) {
        return String.format(Locale.ROOT, "%.5E", value);
    }

    private double at(double t) {
        int i = java.util.Arrays.binarySearch(unit.timeS(), t);
        int k = Math.clamp(i >= 0 ? i : -i - 2, 0, unit.timeS().length - 1);
        return unit.ampere()[k];
    }

    @Override
    public void close() throws IOException {
        server.close();
    }
}
