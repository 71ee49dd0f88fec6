/** Which chips travel with the data, from a table with its source, and in which order they are lifted. */
package org.greenbead.core.travel;
