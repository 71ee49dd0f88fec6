/** The recipe: every number of every stage beside the rehearsal that follows from it. */
package org.greenbead.app.recipe;
