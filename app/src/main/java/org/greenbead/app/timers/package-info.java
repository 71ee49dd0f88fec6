/** Waits of all jobs on one page, and the beginning of a new one. */
package org.greenbead.app.timers;
