/** What every page is made of and may use: the desk, settings, texts, cues, undo, lists. It knows no page. */
package org.greenbead.app.shell;
