/** What a tester printed before and after, line by line; codes that a lamp blinks. */
package org.greenbead.core.lines;
