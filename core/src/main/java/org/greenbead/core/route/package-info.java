/** A job and its route: ten phases, beads in their order, gates that block what follows, and what has been attested. */
package org.greenbead.core.route;
