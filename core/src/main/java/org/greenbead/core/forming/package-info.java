/** Making balls on a chip: how far they are, and which act is right, risky or wrong just then. */
package org.greenbead.core.forming;
