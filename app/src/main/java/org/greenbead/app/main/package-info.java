/** The window as a whole: its frame (bead string, tray, Watch, pedal), which page stands in it, what a key does. It knows every page; no page knows it. */
package org.greenbead.app.main;
