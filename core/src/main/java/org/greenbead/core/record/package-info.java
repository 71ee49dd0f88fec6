/**
 * What people write down in a job: records of a few dozen types, each with its fields, time and author. The types are data
 * ({@code records.txt}); a field may say a fact, and so what is written once is seen by the rule book. An unset field is
 * "not noted", never zero.
 */
package org.greenbead.core.record;
