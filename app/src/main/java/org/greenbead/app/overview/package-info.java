/** The plan at a glance, and the ways of working that a technician may choose. */
package org.greenbead.app.overview;
