package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * A condition over the facts, read once and asked often. Numbers, 'words', yes and no, paths, and or not, = != &lt; &lt;= &gt; &gt;=, in
 * [..], has, is empty, + - * /, and functions. A comparison with an empty value is false, whichever way it points; arithmetic with one is
 * empty.
 */
public final class Condition {
    private static final Set<String> WORDS = Set.of("and", "or", "not", "in", "has", "is", "empty", "yes",
            "no");

    /** One node: asks a scope, answers a value or null for empty. */
    private interface Node {
        Object in(Scope scope);
    }

    /** What names mean at one place: the entities, the rule's item, its limits, the plan's steps. */
    record Scope(Facts.Spot root, Map<String, Facts.Spot> items, Map<String, Double> limits,
            TradeFunctions functions, boolean strict) {
        /** Where what is not known counts as not so. */
        Scope(Facts.Spot root, Map<String, Facts.Spot> items, Map<String, Double> limits,
                TradeFunctions functions) {
            this(root, items, limits, functions, false);
        }

        /** Where what is not known stays unknown. */
        Scope strictly() {
            return new Scope(root, items, limits, functions, true);
        }

        Scope with(String name, Facts.Spot item) {
            var more = new HashMap<>(items);
            more.put(name, item);
            return new Scope(root, more, limits, functions, strict);
        }

        Facts.Spot spot(String path) {
            String[] steps = path.split("\\.");
            Facts.Spot at = items.containsKey(steps[0]) ? items.get(steps[0]) : root.field(steps[0]);
            for (int i = 1; i < steps.length; i++) {
                at = at.field(steps[i]);
            }
            return at;
        }
    }

    private final String text;
    private final List<String> tokens = new ArrayList<>();
    private final List<String> paths = new ArrayList<>();
    /** Names of items while a list is walked, with the list. */
    private final Map<String, String> walked = new HashMap<>();
    private final Node node;
    private int at;

    /** @throws IllegalArgumentException when the text cannot be read */
    public Condition(String text) {
        this.text = text;
        split();
        node = or();
        if (at < tokens.size()) {
            throw bad("\"" + tokens.get(at) + "\" is left over");
        }
    }

    /** Whether it holds; what is not known counts as not so. */
    public boolean holds(Facts facts) {
        return holds(new Scope(facts.spot(), Map.of(), Map.of(), new TradeFunctions(facts.spot())));
    }

    public String text() {
        return text;
    }

    /** Yes, no, or that what is known does not decide it. */
    enum Truth {
        YES, NO, UNKNOWN
    }

    /** Three-valued (strong Kleene logic): a comparison with what is not known is not known. */
    Truth truth(Scope scope) {
        Object value = node.in(scope.strictly());
        return value == null ? Truth.UNKNOWN : Boolean.TRUE.equals(value) ? Truth.YES : Truth.NO;
    }

    boolean holds(Scope scope) {
        return Boolean.TRUE.equals(node.in(scope));
    }

    Object value(Scope scope) {
        return node.in(scope);
    }

    /** The paths that it asks for, in the order of writing. */
    public List<String> paths() {
        return List.copyOf(paths);
    }

    private IllegalArgumentException bad(String why) {
        return new IllegalArgumentException("condition \"" + text + "\": " + why);
    }

    private void split() {
        int i = 0;
        while (i < text.length()) {
            char c = text.charAt(i);
            if (Character.isWhitespace(c)) {
                i++;
                continue;
            }
            int j = i + 1;
            if (c == '\'') {
                j = text.indexOf('\'', j) + 1;
                if (j == 0) {
                    throw bad("a quote is not closed");
                }
            } else if (Character.isLetter(c) || c == '$') {
                while (j < text.length()
                        && (Character.isLetterOrDigit(text.charAt(j)) || "._".indexOf(text.charAt(j)) >= 0)) {
                    j++;
                }
            } else if (Character.isDigit(c)) {
                while (j < text.length() && (Character.isDigit(text.charAt(j)) || text.charAt(j) == '.')) {
                    j++;
                }
            } else if ("<>!".indexOf(c) >= 0 && j < text.length() && text.charAt(j) == '=') {
                j++;
            }
            tokens.add(text.substring(i, j));
            i = j;
        }
    }

    private String peek() {
        return at < tokens.size() ? tokens.get(at) : "";
    }

    private boolean take(String token) {
        if (peek().equals(token)) {
            at++;
            return true;
        }
        return false;
    }

    private void need(String token) {
        if (!take(token)) {
            throw bad("\"" + token + "\" is missing before \"" + peek() + "\"");
        }
    }

    private Node or() {
        Node left = and();
        while (take("or")) {
            Node a = left;
            Node b = and();
            left = s -> {
                Object x = a.in(s);
                Object y = Boolean.TRUE.equals(x) ? null : b.in(s);
                return Boolean.TRUE.equals(x) || Boolean.TRUE.equals(y)
                        ? (Object) true
                        : s.strict && (x == null || y == null) ? null : (Object) false;
            };
        }
        return left;
    }

    private Node and() {
        Node left = not();
        while (take("and")) {
            Node a = left;
            Node b = not();
            left = s -> {
                Object x = a.in(s);
                Object y = b.in(s);
                boolean no = Boolean.FALSE.equals(x) || Boolean.FALSE.equals(y);
                return s.strict && !no && (x == null || y == null)
                        ? null
                        : (Object) (Boolean.TRUE.equals(x) && Boolean.TRUE.equals(y));
            };
        }
        return left;
    }

    private Node not() {
        if (take("not")) {
            Node inner = not();
            return s -> {
                Object x = inner.in(s);
                return s.strict && x == null ? null : (Object) !Boolean.TRUE.equals(x);
            };
        }
        return compared();
    }

    private Node compared() {
        Node left = sum();
        if (take("is")) {
            boolean filled = take("not");
            need("empty");
            return s -> isEmpty(left.in(s)) != filled;
        }
        if (take("in")) {
            List<Node> among = list();
            return s -> {
                Object value = left.in(s);
                return value == null
                        ? unknown(s)
                        : (Object) among.stream().anyMatch(n -> Objects.equals(n.in(s), value));
            };
        }
        if (take("has")) {
            Node wanted = sum();
            return s -> {
                Object value = left.in(s);
                return value == null
                        ? unknown(s)
                        : (Object) (value instanceof List<?> list && list.contains(wanted.in(s)));
            };
        }
        for (String op : List.of("=", "!=", "<=", ">=", "<", ">")) {
            if (take(op)) {
                Node right = sum();
                return s -> {
                    Object a = left.in(s);
                    Object b = right.in(s);
                    return a == null || b == null ? unknown(s) : (Object) compare(op, a, b);
                };
            }
        }
        return left;
    }

    private static boolean isEmpty(Object value) {
        return value == null || value instanceof List<?> list && list.isEmpty() || "".equals(value);
    }

    /** What a question comes to that asks for something not known. */
    private static Object unknown(Scope scope) {
        return scope.strict ? null : (Object) false;
    }

    private static boolean compare(String op, Object a, Object b) {
        if (op.equals("=") || op.equals("!=")) {
            return a.equals(b) == op.equals("=");
        }
        if (!(a instanceof Double x) || !(b instanceof Double y)) {
            return false;
        }
        return switch (op) {
            case "<" -> x < y;
            case "<=" -> x <= y;
            case ">" -> x > y;
            default -> x >= y;
        };
    }

    private List<Node> list() {
        need("[");
        var nodes = new ArrayList<Node>();
        while (!take("]")) {
            nodes.add(sum());
            take(",");
            if (at >= tokens.size()) {
                throw bad("a list is not closed");
            }
        }
        return nodes;
    }

    private interface Arithmetic {
        double of(double a, double b);
    }

    private static Node figure(Node a, Node b, Arithmetic how) {
        return s -> a.in(s) instanceof Double x && b.in(s) instanceof Double y ? how.of(x, y) : null;
    }

    private Node sum() {
        Node left = product();
        while (true) {
            if (take("+")) {
                left = figure(left, product(), Double::sum);
            } else if (take("-")) {
                left = figure(left, product(), (a, b) -> a - b);
            } else {
                return left;
            }
        }
    }

    private Node product() {
        Node left = factor();
        while (true) {
            if (take("*")) {
                left = figure(left, factor(), (a, b) -> a * b);
            } else if (take("/")) {
                left = figure(left, factor(), (a, b) -> a / b);
            } else {
                return left;
            }
        }
    }

    private Node factor() {
        String token = peek();
        if (token.isEmpty()) {
            throw bad("it ends too early");
        }
        at++;
        if (token.equals("(")) {
            Node inner = or();
            need(")");
            return inner;
        }
        if (token.startsWith("'")) {
            String word = token.substring(1, token.length() - 1);
            return s -> word;
        }
        if (Character.isDigit(token.charAt(0))) {
            Double number = Double.valueOf(token);
            return s -> number;
        }
        if (token.startsWith("$")) {
            String name = token.substring(1);
            return s -> s.limits.get(name);
        }
        if (token.equals("yes") || token.equals("no")) {
            Boolean value = token.equals("yes");
            return s -> value;
        }
        if (!Character.isLetter(token.charAt(0)) || WORDS.contains(token)) {
            throw bad("\"" + token + "\" stands where a value should");
        }
        if (take("(")) {
            return function(token);
        }
        int dot = token.indexOf('.');
        String list = dot < 0 ? null : walked.get(token.substring(0, dot));
        paths.add(list == null ? token : list + "[]" + token.substring(dot));
        return s -> s.spot(token).value();
    }

    private Node function(String name) {
        if (name.equals("any") || name.equals("count")) {
            String path = peek();
            at++;
            paths.add(path);
            need(",");
            String item = peek();
            at++;
            need(":");
            walked.put(item, path);
            Node inner = or();
            walked.remove(item);
            need(")");
            boolean any = name.equals("any");
            return s -> {
                double found = 0;
                boolean open = false;
                for (Facts.Spot spot : s.spot(path).items()) {
                    Object holds = inner.in(s.with(item, spot));
                    found += Boolean.TRUE.equals(holds) ? 1 : 0;
                    open |= holds == null;
                }
                return any
                        ? s.strict && open && found == 0 ? null : (Object) (found > 0)
                        : (Object) found;
            };
        }
        var arguments = new ArrayList<Node>();
        while (!take(")")) {
            arguments.add(or());
            take(",");
            if (at >= tokens.size() && !peek().equals(")")) {
                throw bad(name + "( is not closed");
            }
        }
        if (!TradeFunctions.knows(name)) {
            throw bad(name + " is no function");
        }
        return s -> s.functions.call(name, arguments.stream().map(a -> a.in(s)).toList());
    }
}
