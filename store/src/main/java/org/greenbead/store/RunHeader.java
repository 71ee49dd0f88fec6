package org.greenbead.store;

import java.time.Instant;
import org.greenbead.core.run.RunPlan;

/**
 * First line of a run log.
 *
 * @param run       id of the run
 * @param started   when the log was opened
 * @param simulated true when no real board was heated
 * @param seed      of the simulated bench; 0 for a real one
 * @param plan      everything the run was planned with
 */
public record RunHeader(String run, Instant started, boolean simulated, long seed, RunPlan plan) {}
