/** All jobs with a search that knows the words of the bench, and the questions that begin a new one. */
package org.greenbead.app.jobs;
