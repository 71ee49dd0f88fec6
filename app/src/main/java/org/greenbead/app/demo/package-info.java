/** Walks the demo job by itself, by the same keys a person would press, and takes the pictures of the main views. */
package org.greenbead.app.demo;
