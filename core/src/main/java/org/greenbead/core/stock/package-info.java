/** What is used up or wears: stencils, pastes, fluxes, spheres, wick, tips, blades. Their counters follow from what was done with them. */
package org.greenbead.core.stock;
