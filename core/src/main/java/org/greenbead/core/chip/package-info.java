/** Chips with a life of their own: label, place, health with its proof, where they come from, what they have been through. */
package org.greenbead.core.chip;
