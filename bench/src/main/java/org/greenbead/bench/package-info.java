/** How fast the computations are. Run with ./greenbead bench; results are quoted in docs/performance.md. */
package org.greenbead.bench;
