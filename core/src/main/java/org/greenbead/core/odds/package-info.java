/** What the ledger has seen come out well, and how much that says. */
package org.greenbead.core.odds;
