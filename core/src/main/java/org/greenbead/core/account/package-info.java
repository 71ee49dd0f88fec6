/**
 * What is known of a job, and from where: its ticks, records, runs and ways of working, board, bench and recipe become facts, facts open
 * gates, and the changes of a job are kept as its account. Nothing in here judges; the rule book does.
 */
package org.greenbead.core.account;
