/** Jars, stencils and tools of the house with their counters. */
package org.greenbead.app.stock;
