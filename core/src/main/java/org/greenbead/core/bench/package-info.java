/** Equipment with its measured character: heater lag, air loss, nozzles, probes. Numbers on a dial are not process values. */
package org.greenbead.core.bench;
