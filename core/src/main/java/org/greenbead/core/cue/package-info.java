/** Timers of the hands-busy steps. They hang on events, not on the clock: "the first ball shines", then a count. */
package org.greenbead.core.cue;
