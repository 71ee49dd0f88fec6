package org.greenbead.device;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.run.LinkLostException;

/**
 * A bench supply that speaks SCPI (SCPI-99, volume 2) over a plain TCP socket. It is only read: {@code VOLT?}, {@code CURR?} (the limit) and
 * {@code MEAS:CURR?}; nothing is switched or set.
 */
public final class ScpiSupply implements AutoCloseable {
    public static final int USUAL_PORT = 5025;
    private static final int PATIENCE_MS = 2000;
    private static final long LEAST_SPACING_NS = 10_000_000;
    private final Socket socket = new Socket();
    private final BufferedReader in;
    private final OutputStream out;
    private final LongSupplier nanos;

    /** Told after every sample, from the recording thread. */
    public interface Listener {
        void sample(double timeS, double ampere);
    }

    /** @param broke why it ended early; what was recorded until then is there */
    public record Recorded(CurrentTrace trace, Optional<String> broke) {}

    /**
     * @param nanos a clock that only goes on, ns
     * @throws LinkLostException when nothing answers there
     */
    public ScpiSupply(String host, int port, LongSupplier nanos) throws LinkLostException {
        this.nanos = nanos;
        try {
            socket.connect(new InetSocketAddress(host, port), PATIENCE_MS);
            socket.setSoTimeout(PATIENCE_MS);
            socket.setTcpNoDelay(true);
            in = new BufferedReader(
                    new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
            out = socket.getOutputStream();
        } catch (IOException e) {
            close();
            throw new LinkLostException("no supply answers at " + host + ":" + port + " (" + e.getMessage()
                    + "); check its address and that its network port is on");
        }
    }

    /**
     * @param address {@code host} or {@code host:port}
     * @throws IllegalArgumentException when it is no address
     */
    public static ScpiSupply at(String address, LongSupplier nanos) throws LinkLostException {
        String[] parts = address.strip().split(":", 2);
        int port = USUAL_PORT;
        try {
            port = parts.length > 1 ? Integer.parseInt(parts[1]) : USUAL_PORT;
        } catch (NumberFormatException e) {
            port = 0;
        }
        if (parts[0].isBlank() || port < 1 || port > 65535) {
            throw new IllegalArgumentException(
                    "\"" + address + "\" is no address; write host or host:port");
        }
        return new ScpiSupply(parts[0], port, nanos);
    }

    private double asked(String question) throws LinkLostException {
        String answer;
        try {
            out.write((question + "\n").getBytes(StandardCharsets.US_ASCII));
            out.flush();
            answer = in.readLine();
        } catch (IOException e) {
            throw new LinkLostException(
                    "the supply does not answer " + question + " (" + e.getMessage() + ")");
        }
        if (answer == null) {
            throw new LinkLostException("the supply has closed the link");
        }
        try {
            double value = Double.parseDouble(answer.strip());
            // SCPI-99, 7.2.1.5: 9.9E37 is infinity, 9.91E37 no number.
            if (Math.abs(value) < 9.8e37) {
                return value;
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new LinkLostException("the supply answers " + question + " with \"" + answer.strip()
                + "\", which is no number");
    }

    /** What it is set to. @param unitState what is connected, in words */
    public CurrentTrace.Conditions conditions(String unitState) throws LinkLostException {
        return new CurrentTrace.Conditions(Optional.of(asked("VOLT?")), Optional.of(asked("CURR?")),
                unitState);
    }

    /**
     * Reads as fast as it answers, at most a hundred times a second.
     *
     * @param stop asked after each sample; true ends the recording
     * @throws LinkLostException when it is lost before anything useful was recorded
     */
    public Recorded record(double seconds, CurrentTrace.Conditions under, Listener listener,
            BooleanSupplier stop) throws LinkLostException {
        List<double[]> samples = new ArrayList<>();
        long start = nanos.getAsLong();
        Optional<String> broke = Optional.empty();
        long last = Long.MIN_VALUE;
        while (!stop.getAsBoolean()) {
            long asked = nanos.getAsLong();
            if (last != Long.MIN_VALUE && asked - last < LEAST_SPACING_NS) {
                LockSupport.parkNanos(200_000);
                continue;
            }
            last = asked;
            double ampere;
            try {
                ampere = asked("MEAS:CURR?");
            } catch (LinkLostException e) {
                broke = Optional.of(e.getMessage());
                break;
            }
            // It was measured between question and answer.
            double time = ((asked + nanos.getAsLong()) / 2.0 - start) / 1e9;
            if (samples.isEmpty() || time > samples.getLast()[0]) {
                samples.add(new double[]{time, ampere});
                listener.sample(time, ampere);
            }
            if (time >= seconds) {
                break;
            }
        }
        if (samples.size() < 5) {
            throw new LinkLostException(broke.orElse("too little was recorded"));
        }
        return new Recorded(new CurrentTrace(samples.stream().mapToDouble(p -> p[0]).toArray(),
                samples.stream().mapToDouble(p -> p[1]).toArray(), under), broke);
    }

    @Override
    public void close() {
        try {
            socket.close();
        } catch (IOException e) {
            // There is nothing left to lose.
        }
    }
}
