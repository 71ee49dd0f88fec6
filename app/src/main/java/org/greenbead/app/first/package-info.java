/** The first page of a ledger that holds no job. */
package org.greenbead.app.first;
