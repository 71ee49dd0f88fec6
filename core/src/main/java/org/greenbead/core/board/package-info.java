/** What lies on the bench: the board, its chips as stacks of layers, other parts with limits, and where probes sit. */
package org.greenbead.core.board;
