/** The acts on a job that the window, the command line and the examples share. */
package org.greenbead.core.work;
