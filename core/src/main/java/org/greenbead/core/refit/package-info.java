/** What goes back after the work: how hard a glued panel is pressed, how hard a screw is driven. */
package org.greenbead.core.refit;
