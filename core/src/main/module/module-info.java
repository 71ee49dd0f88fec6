/** The trade: plain Java, no interface, no database, no socket. */
module org.greenbead.core {
    exports org.greenbead.core.alloy;
    exports org.greenbead.core.bench;
    exports org.greenbead.core.board;
    exports org.greenbead.core.finding;
    exports org.greenbead.core.quantity;
    exports org.greenbead.core.recipe;
    exports org.greenbead.core.route;
    exports org.greenbead.core.run;
    exports org.greenbead.core.thermal;
}
