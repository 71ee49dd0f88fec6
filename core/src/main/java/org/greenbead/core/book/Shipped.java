package org.greenbead.core.book;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;

/** The texts that lie beside this package. */
final class Shipped {
    private Shipped() {
    }

    static String text(String name) {
        try (InputStream in = Shipped.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
