/**
 * What is kept: open files with their schemas, the ledger, run logs that survive a kill, exports and reports. Files from
 * outside are limited in size, checked against a schema, and never trusted with paths.
 */
package org.greenbead.store;
