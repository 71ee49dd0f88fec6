/** Computation alone: no window, file, socket or database. Everything in it may be used by what stands above. */
module org.greenbead.core {
    requires hipparchus.core;
    requires hipparchus.optim;

    exports org.greenbead.core.account;
    exports org.greenbead.core.alloy;
    exports org.greenbead.core.bead;
    exports org.greenbead.core.bench;
    exports org.greenbead.core.board;
    exports org.greenbead.core.book;
    exports org.greenbead.core.calibrate;
    exports org.greenbead.core.chip;
    exports org.greenbead.core.configure;
    exports org.greenbead.core.cue;
    exports org.greenbead.core.decision;
    exports org.greenbead.core.electric;
    exports org.greenbead.core.finding;
    exports org.greenbead.core.forming;
    exports org.greenbead.core.inspect;
    exports org.greenbead.core.kind;
    exports org.greenbead.core.leak;
    exports org.greenbead.core.lines;
    exports org.greenbead.core.moisture;
    exports org.greenbead.core.odds;
    exports org.greenbead.core.overview;
    exports org.greenbead.core.picture;
    exports org.greenbead.core.plan;
    exports org.greenbead.core.proof;
    exports org.greenbead.core.quantity;
    exports org.greenbead.core.recipe;
    exports org.greenbead.core.record;
    exports org.greenbead.core.refit;
    exports org.greenbead.core.route;
    exports org.greenbead.core.run;
    exports org.greenbead.core.search;
    exports org.greenbead.core.stock;
    exports org.greenbead.core.thermal;
    exports org.greenbead.core.timer;
    exports org.greenbead.core.travel;
    exports org.greenbead.core.work;
}
