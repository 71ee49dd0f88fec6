/** The board as it was photographed, squared up, with its parts, screws and lost pieces on it. */
package org.greenbead.app.picture;
