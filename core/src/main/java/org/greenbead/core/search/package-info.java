/** Finds jobs by what people at benches say. What is heard is read as the standard word; the data keep the standard word. */
package org.greenbead.core.search;
