/** Solders: melting range, heat of fusion, and what may not be mixed. */
package org.greenbead.core.alloy;
