/** The rule book's word on the whole job, and what is noted of it. */
package org.greenbead.app.book;
