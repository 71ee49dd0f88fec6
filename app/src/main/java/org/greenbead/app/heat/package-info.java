/** The heat picture: both sides of the board in colours of their temperature, over time. */
package org.greenbead.app.heat;
