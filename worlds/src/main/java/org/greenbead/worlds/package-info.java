/**
 * Photos of balled chips with exact truth, made by three methods that share no drawing code: for training and scoring the photo check. Not
 * part of what is shipped.
 */
package org.greenbead.worlds;
