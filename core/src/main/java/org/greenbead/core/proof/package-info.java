/** What was measured before the work beside the same after it. */
package org.greenbead.core.proof;
