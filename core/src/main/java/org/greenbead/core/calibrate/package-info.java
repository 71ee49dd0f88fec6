/** Learns a bench from its own logged runs. */
package org.greenbead.core.calibrate;
