/** Whether a closed enclosure holds its pressure: kPa, °C, s. */
package org.greenbead.core.leak;
