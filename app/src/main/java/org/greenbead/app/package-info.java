/** The window: start-up and its options. Everything else lies in the packages below, one a screen. */
package org.greenbead.app;
