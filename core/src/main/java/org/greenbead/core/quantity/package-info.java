/**
 * Numbers with a unit, guards against bad ones, and phrases: judgements kept as numbers until somebody reads them.
 * SI and °C inside; °F exists only here, at the edge where a person reads or types.
 */
package org.greenbead.core.quantity;
