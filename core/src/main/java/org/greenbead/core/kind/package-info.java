/** Usual builds of boards, packages and benches, for what nobody has measured yet. */
package org.greenbead.core.kind;
