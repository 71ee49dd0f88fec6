/** A photo of a board, squared up: four corners tie its pixels to millimetres. Pixels count from the upper left, millimetres from the board's lower left corner. */
package org.greenbead.core.picture;
