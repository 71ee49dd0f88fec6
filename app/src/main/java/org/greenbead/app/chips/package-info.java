/** Chips with their labels, places, health and look-alikes. */
package org.greenbead.app.chips;
