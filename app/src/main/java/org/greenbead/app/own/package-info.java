/** Boards of one's own: drawn from a photo and a ruler, kept, copied, removed. */
package org.greenbead.app.own;
