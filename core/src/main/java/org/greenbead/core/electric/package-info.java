/** What meters say of a board: rails against their reference (ohm, the leads taken off), the current of a start-up against healthy ones (A, s). */
package org.greenbead.core.electric;
