/** The job in hand: its state, its beads, and the page for a bead of checks. */
package org.greenbead.app.work;
