/** The plan of a job at a glance: the few numbers that decide it, each computed from this board, this chip and this job's records. */
package org.greenbead.core.overview;
