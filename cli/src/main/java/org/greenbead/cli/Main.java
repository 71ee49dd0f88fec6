package org.greenbead.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.store.BadFileException;
import org.greenbead.store.LedgerException;
import org.greenbead.store.LedgerReadOnlyException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** {@code greenbead VERB}: exit status 0 good, 1 worked but not good, 2 the call or its input is wrong. */
@Command(name = "greenbead", mixinStandardHelpOptions = true, version = "Green Bead 0.1.0", description = "Rework of ball grid arrays: rehearse, run, prove, remember.")
public final class Main implements Runnable {
    private static final List<Class<?>> VERBS = List.of(
            RehearseCommand.class,
            LapsCommand.class,
            RunCommand.class,
            ReplayCommand.class,
            DemoPastCommand.class,
            ExportCommand.class,
            ReportCommand.class,
            LedgerCommand.class,
            DoctorCommand.class,
            FindingsCommand.class,
            PlanCommand.class,
            HeatsCommand.class,
            StrandCommand.class,
            WhereCommand.class,
            CalibrateCommand.class,
            ObserveCommand.class,
            CheckCommand.class,
            RulesCommand.class,
            ExamplesCommand.class,
            NewCommand.class,
            NoteCommand.class,
            TestLogCommand.class,
            WorkCommands.Tick.class,
            WorkCommands.Way.class,
            WorkCommands.Steps.class,
            WorkCommands.AccountOf.class,
            BundleCommands.Pack.class,
            BundleCommands.Import.class,
            ChipCommands.Chips.class,
            ChipCommand.class,
            ChipCommands.Labels.class,
            TradeCommands.Jobs.class,
            TradeCommands.PlanOverview.class,
            TradeCommands.Mix.class,
            TradeCommands.Bake.class,
            TradeCommands.Place.class,
            TradeCommands.Square.class,
            TradeCommands.Records.class,
            TradeCommands.Ways.class,
            BoardCommand.class,
            BenchCommand.class,
            CurrentCommand.class,
            LeakCommand.class,
            RefitCommand.class,
            TimerCommand.class,
            StockCommand.class,
            DecisionCommands.Courses.class,
            DecisionCommands.Evidence.class,
            DecisionCommands.Proofs.class,
            RailsCommand.class,
            PadCommand.class,
            TravelCommand.class,
            ConfigureCommands.Straps.class,
            ConfigureCommands.Size.class,
            ConfigureCommands.Dumps.class,
            ConfigureCommands.Lines.class,
            ConfigureCommands.Code.class,
            BeadCommands.Ball.class,
            FormingCommand.class,
            BeadCommands.Joint.class,
            BeadCommands.Spheres.class,
            BeadCommands.MapCommand.class,
            BeadCommands.Stencil.class,
            BeadCommands.Pull.class,
            BeadCommands.Edges.class,
            PhotoCommands.Beads.class,
            PhotoCommands.Pads.class,
            PhotoCommands.Compare.class);

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    public static void main(String[] args) {
        System.exit(execute(new PrintWriter(System.out, true), new PrintWriter(System.err, true), args));
    }

    /** Runs one command line. */
    static int execute(PrintWriter out, PrintWriter err, String... args) {
        var line = new CommandLine(new Main());
        asked(args).forEach(line::addSubcommand);
        line.setOut(out);
        line.setErr(err);
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setExecutionExceptionHandler((e, cmd, result) -> {
            Throwable said = cmd.getMixins().values().stream().filter(Shared.class::isInstance)
                    .map(Shared.class::cast).findFirst().map(shared -> shared.inWords(e)).orElse(e);
            cmd.getErr().println(sentence(said));
            return 2;
        });
        line.setParameterExceptionHandler((e, words) -> {
            e.getCommandLine().getErr().println(e.getMessage() + ". See "
                    + e.getCommandLine().getCommandSpec().qualifiedName(" ") + " --help.");
            return 2;
        });
        return line.execute(args);
    }

    /** The verb that is asked for alone: to read the options of all of them takes longer than most verbs. All of them where it is none of them. */
    private static List<Class<?>> asked(String... args) {
        List<Class<?>> one = args.length == 0
                ? List.of()
                : VERBS.stream().filter(v -> v.getAnnotation(Command.class).name().equals(args[0])).toList();
        return one.isEmpty() ? VERBS : one;
    }

    private static String sentence(Throwable e) {
        String message = e.getMessage() == null
                ? e.getClass().getSimpleName()
                : e.getMessage().lines().findFirst().orElse("");
        return e instanceof BadFileException || e instanceof LedgerException
                || e instanceof LedgerReadOnlyException || e instanceof IllegalArgumentException
                || e instanceof IOException || e instanceof LinkLostException
                        ? message
                        : "Something went wrong inside Green Bead (" + e.getClass().getSimpleName() + ": "
                                + message + "). Please keep the file that caused it.";
    }

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
