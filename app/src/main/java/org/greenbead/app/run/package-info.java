/** The run: live, replayed and judged, with its chart, its room left and its board. */
package org.greenbead.app.run;
