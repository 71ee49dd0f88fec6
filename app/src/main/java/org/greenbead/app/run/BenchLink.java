package org.greenbead.app.run;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.run.BenchHands;
import org.greenbead.core.run.ProbePort;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.device.LoggerConfig;
import org.greenbead.device.ModbusLogger;

/** What a run is joined to: the logger of the set-up, a simulated bench, or nothing where nothing is to be asked. Belongs to the runner's thread. */
public final class BenchLink implements AutoCloseable {
    private final Desk desk;
    private volatile Optional<SimulatedBench> bench = Optional.empty();
    private Optional<ProbePort> port = Optional.empty();
    private BenchHands hands = BenchHands.TECHNICIAN;
    private double pollS;

    /** @param usualPollS from one sweep to the next where no logger file says otherwise */
    public BenchLink(Desk desk, double usualPollS) {
        this.desk = desk;
        this.pollS = usualPollS;
    }

    /** @throws IOException or IllegalArgumentException when the logger cannot be used, with the reason */
    public void connect(RunPlan plan, long seed) throws IOException {
        boolean blind = plan.bench().probes().isEmpty();
        switch (desk.joined()) {
            case SIMULATED -> simulate(plan, seed);
            case NOTHING -> {
                if (!blind) {
                    throw new IOException(desk.texts().get("run.nologger.none"));
                }
                port = Optional.of(ProbePort.NONE);
            }
            case LOGGER -> {
                if (blind) {
                    // Led by eye at a real bench: there is nothing to ask.
                    port = Optional.of(ProbePort.NONE);
                    return;
                }
                LoggerConfig config = LoggerConfig.read(Path.of(desk.settings().loggerFile().get()));
                pollS = config.pollMs() / 1000.0;
                port = Optional.of(new ModbusLogger(config, plan.bench().probes()));
            }
        }
    }

    /** Puts a simulated bench under the simulated logger. */
    SimulatedBench simulate(RunPlan on, long seed) throws IOException {
        var simulated = new SimulatedBench(on, seed);
        var logger = desk.simulatedLogger();
        logger.show(simulated, on.bench().probes());
        port.ifPresent(ProbePort::close);
        bench = Optional.of(simulated);
        hands = simulated;
        port = Optional.of(on.bench().probes().isEmpty()
                ? ProbePort.NONE
                : new ModbusLogger(logger.config(), on.bench().probes()));
        return simulated;
    }

    /** The simulated bench's own affairs: faults, and what the eye would see. From any thread. */
    public Optional<SimulatedBench> bench() {
        return bench;
    }

    public Optional<ProbePort> port() {
        return port;
    }

    public BenchHands hands() {
        return hands;
    }

    public double pollS() {
        return pollS;
    }

    @Override
    public void close() {
        port.ifPresent(ProbePort::close);
        port = Optional.empty();
    }
}
