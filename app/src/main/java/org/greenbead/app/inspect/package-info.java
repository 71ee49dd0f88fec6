/** Balls and pads on photos: the picture with what was seen on it, the list of what to do, the sizes.
 */
package org.greenbead.app.inspect;
