/** Adapters to the world: a thermocouple logger over Modbus TCP, and a simulated one that speaks the same protocol on loopback. */
package org.greenbead.device;
