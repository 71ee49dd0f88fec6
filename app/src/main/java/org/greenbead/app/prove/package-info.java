/** Proofs of a repair, before and after. */
package org.greenbead.app.prove;
