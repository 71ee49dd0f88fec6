/**
 * A run: events in (samples, the technician's word, changed settings), state, coaching and findings out. The same engine
 * drives a live run, a rehearsal in the thermal model and the replay of a log; it reads no clock and starts no thread.
 * What a probe shows is never the joint: the joint is estimated, and shown with its uncertainty.
 */
package org.greenbead.core.run;
