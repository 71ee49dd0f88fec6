package org.greenbead.core.finding;

/** In order of growing weight, so that {@code compareTo} ranks findings. */
public enum Severity {
    NOTE, CARE, STOP
}
