/** Balls, pads and parts judged from photos: the lattice, the measurement and the verdict. Pictures are in linear light; places in pixels are continuous, the origin at the top left corner, the middle of the first pixel at (0.5, 0.5). */
package org.greenbead.core.inspect;
