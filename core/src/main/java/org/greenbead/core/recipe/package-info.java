/** Recipes: staged heat, what ends each stage, and the limits that the job keeps. */
package org.greenbead.core.recipe;
