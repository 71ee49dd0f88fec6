package org.greenbead.device;

import com.ghgande.j2mod.modbus.ModbusException;
import com.ghgande.j2mod.modbus.ModbusSlaveException;
import com.ghgande.j2mod.modbus.io.AbstractModbusTransport;
import com.ghgande.j2mod.modbus.msg.ExceptionResponse;
import com.ghgande.j2mod.modbus.msg.ModbusRequest;
import com.ghgande.j2mod.modbus.msg.ModbusResponse;
import com.ghgande.j2mod.modbus.msg.ReadInputRegistersRequest;
import com.ghgande.j2mod.modbus.msg.ReadInputRegistersResponse;
import com.ghgande.j2mod.modbus.msg.ReadMultipleRegistersRequest;
import com.ghgande.j2mod.modbus.msg.ReadMultipleRegistersResponse;
import com.ghgande.j2mod.modbus.net.TCPMasterConnection;
import com.ghgande.j2mod.modbus.procimg.InputRegister;
import java.net.InetAddress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.core.run.ProbePort;
import org.greenbead.core.run.Reading;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Thermocouples on a Modbus TCP logger. One request a sweep covers all channels in use. After a failure the connection is
 * thrown away and made anew at the next sweep.
 */
public final class ModbusLogger implements ProbePort {
    private static final Logger LOG = LoggerFactory.getLogger(ModbusLogger.class);
    private static final int MOST_REGISTERS = 125; // Modbus application protocol V1.1b3, 6.4
    /** What loggers put into a register that has no value: the ends of the signed range, and all bits set. None is a temperature of a bench. */
    private static final Set<Integer> NO_VALUE = Set.of(-32768, 32767, -1);
    private final LoggerConfig config;
    private final List<ProbePlace> probes;
    private final Map<Integer, Integer> registerOf = new HashMap<>();
    private final int first;
    private final int count;
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().daemon().name("logger-deadline").factory());
    /** Null while there is none; the deadline looks at it from its own thread. */
    private volatile TCPMasterConnection link;
    private int asked = 1;
    private boolean silent;

    /** @throws IllegalArgumentException when a probe's channel is not in the configuration */
    public ModbusLogger(LoggerConfig config, List<ProbePlace> probes) {
        this.config = config;
        this.probes = List.copyOf(probes);
        config.channels().forEach(c -> registerOf.put(c.channel(), c.register()));
        int low = Integer.MAX_VALUE;
        int high = 0;
        for (ProbePlace probe : probes) {
            Integer register = registerOf.get(probe.channel());
            if (register == null) {
                throw new IllegalArgumentException("probe " + probe.name() + " is on channel "
                        + probe.channel() + ", which the logger's file does not list");
            }
            low = Math.min(low, register);
            high = Math.max(high, register);
        }
        first = probes.isEmpty() ? 0 : low;
        count = probes.isEmpty() ? 1 : high - low + 1;
        if (count > MOST_REGISTERS) {
            throw new IllegalArgumentException(
                    "the probes' registers span " + count + "; one request takes " + MOST_REGISTERS);
        }
    }

    @Override
    public List<Reading> sweep() throws LinkLostException {
        // The library's patience begins anew with every byte; the sweep's does not.
        ScheduledFuture<?> deadline = watch.schedule(this::giveUp, config.timeoutMs(), TimeUnit.MILLISECONDS);
        try {
            int[] counts = ask(connected());
            silent = false;
            var readings = new ArrayList<Reading>();
            for (ProbePlace probe : probes) {
                int value = counts[registerOf.get(probe.channel()) - first];
                readings.add(value == config.openCount() || NO_VALUE.contains(value)
                        ? new Reading.Open(probe.name())
                        : new Reading.Measured(probe.name(),
                                Math.round(value * config.scale() * 1000) / 1000.0));
            }
            return readings;
        } catch (Exception e) { // the library's connect declares Exception
            if (e instanceof InterruptedException) {
                Thread.currentThread().interrupt();
            }
            drop();
            if (!silent) {
                LOG.warn("logger {}:{} does not answer: {}", config.host(), config.port(), e.getMessage());
                silent = true;
            }
            throw new LinkLostException("The logger at " + config.host() + ":" + config.port()
                    + " does not answer (" + e.getMessage() + "). Check its cable and power.", e);
        } finally {
            deadline.cancel(false);
        }
    }

    /** The time of a sweep is up: its connection is closed under it. */
    private void giveUp() {
        TCPMasterConnection now = link;
        if (now != null) {
            now.close();
        }
    }

    private TCPMasterConnection connected() throws Exception {
        TCPMasterConnection there = link;
        if (there == null) {
            there = new TCPMasterConnection(InetAddress.getByName(config.host()));
            there.setPort(config.port());
            there.setTimeout(config.timeoutMs());
            there.connect();
            link = there;
        }
        return there;
    }

    /** One question, one answer. The library's own transactions ask again, with pauses of seconds in which a run would stand still. */
    private int[] ask(TCPMasterConnection to) throws ModbusException {
        ModbusRequest question = config.table() == LoggerConfig.Table.INPUT
                ? new ReadInputRegistersRequest(first, count)
                : new ReadMultipleRegistersRequest(first, count);
        question.setUnitID(config.unit());
        question.setTransactionID(asked++ & 0xFFFF);
        AbstractModbusTransport transport = to.getModbusTransport();
        transport.setTimeout(config.timeoutMs());
        transport.writeRequest(question);
        ModbusResponse answer = transport.readResponse();
        if (answer.getTransactionID() != question.getTransactionID()) {
            throw new ModbusException("the answer is to another question");
        }
        if (answer.getProtocolID() != 0) {
            throw new ModbusException("the answer is in another protocol");
        }
        if (answer.getUnitID() != config.unit()) {
            throw new ModbusException("another unit has answered");
        }
        int[] counts = switch (answer) {
            case ExceptionResponse e -> throw new ModbusSlaveException(e.getExceptionCode());
            case ReadInputRegistersResponse r when question instanceof ReadInputRegistersRequest -> values(
                    r.getRegisters());
            case ReadMultipleRegistersResponse r when question instanceof ReadMultipleRegistersRequest ->
                values(
                        r.getRegisters());
            default -> throw new ModbusException("the answer is of another kind");
        };
        if (counts.length != count) {
            throw new ModbusException("the answer is short");
        }
        return counts;
    }

    private static int[] values(InputRegister[] registers) {
        return Arrays.stream(registers).mapToInt(InputRegister::toShort).toArray();
    }

    private void drop() {
        giveUp();
        link = null;
    }

    @Override
    public void close() {
        drop();
        watch.shutdownNow();
    }
}
