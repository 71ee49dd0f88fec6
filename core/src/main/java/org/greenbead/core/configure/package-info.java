/** Straps that tell a board what is fitted, and read-outs of firmware in which it stands written. */
package org.greenbead.core.configure;
