package org.greenbead.core.route;

/** A person's word on a check. Unknown is not no, and blank is not zero. */
public enum Attest {
    UNKNOWN, NO, YES
}
