/** Finds recipes: drives a candidate through the thermal model, weighs it against every limit, searches, proves and prices. */
package org.greenbead.core.plan;
