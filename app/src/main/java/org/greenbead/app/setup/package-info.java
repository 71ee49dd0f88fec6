/** Bench set-up: units, light, text size, demo time, sound, the logger. */
package org.greenbead.app.setup;
