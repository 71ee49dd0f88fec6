/**
 * The thermal twin, first form: the board as rings around the target chip, three sheets thick, each package a stack of
 * layers, a bottom heater with lag, an impinging air jet, latent heat by enthalpy. In: a {@link
 * org.greenbead.core.thermal.HeatScene} and, step by step, what heater and air are set to. Out: temperatures of joints,
 * package tops, board faces, neighbours and probes, with an energy balance.
 * <p>Uncalibrated it is worth some ±15 °C at the joint: jet correlations alone carry ±30 %. Equations, sources and limits
 * are argued in docs/thermal.md. {@link org.greenbead.core.thermal.HeatModel} is the seam at which a finer model slots in.
 */
package org.greenbead.core.thermal;
