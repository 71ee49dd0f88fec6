/** The one shape in which anything is judged: a rule, its weight, what was seen, why it matters, and a remedy. */
package org.greenbead.core.finding;
