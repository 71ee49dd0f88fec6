/** What a meter says of a board: rails against their reference. Resistances in ohm, the leads taken off. */
package org.greenbead.core.electric;
