/** The command line: every computation of the product, reading and writing the open formats. Results on stdout, errors on stderr, one sentence each. */
package org.greenbead.cli;
