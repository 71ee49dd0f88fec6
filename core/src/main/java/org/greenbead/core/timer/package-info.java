/** Waits that belong to a job and run while other work goes on: bake, cure, cool, dry, rest, a long test. They live in the job's account. */
package org.greenbead.core.timer;
