/** The ledger: every run that was made. */
package org.greenbead.app.ledger;
