/** Looks: tokens, themes, fonts, shapes. Colours exist only in the theme files; views name roles. */
package org.greenbead.app.look;
