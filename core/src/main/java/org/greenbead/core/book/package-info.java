/**
 * The rule book: what goes wrong at benches, as conditions over the facts of a whole job. Rules, their words, their limits and a smallest
 * job for each stand in {@code rulebook.txt}; what facts there are stands in {@code vocabulary.txt}. Blank is not zero: a comparison with a
 * fact that nobody noted is never true, and a rule that minds the blank says so.
 */
package org.greenbead.core.book;
