/** Whether a unit is worth the attempt, and by which course. */
package org.greenbead.core.decision;
