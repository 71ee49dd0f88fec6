/**
 * Steam in packages: how long a part may lie open, and how it is dried. Numbers of IPC/JEDEC J-STD-033 from
 * {@code moisture.txt}; verify against the current edition.
 */
package org.greenbead.core.moisture;
