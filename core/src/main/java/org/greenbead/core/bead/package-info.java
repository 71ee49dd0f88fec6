/**
 * From paste to ball to joint: openings and what they release, the ball that melts out of it, spheres by number and mass, the height of
 * a collapsed joint. Lengths in mm, volumes in mm3, masses in mg. docs/beads.md has the equations and their sources.
 */
package org.greenbead.core.bead;
