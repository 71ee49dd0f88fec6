/** The window: bead string, bench tray, workbench, Watch, pedal bar, and what all screens share. Wiring is said here and nowhere else. */
package org.greenbead.app.shell;
