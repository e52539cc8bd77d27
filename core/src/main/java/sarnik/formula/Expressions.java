package sarnik.formula;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;

/** Goes through the trees of formulas. */
final class Expressions {

    private Expressions() {}

    /** Whether an expression, or one that it is made of, is meant. */
    static boolean any(Expression of, Predicate<Expression> meant) {
        return meant.test(of) || children(of).stream().anyMatch(child -> any(child, meant));
    }

    /** What an expression is made of. */
    static List<Expression> children(Expression of) {
        if (of instanceof Expression.Unary e) return List.of(e.of());
        if (of instanceof Expression.Binary e) return List.of(e.left(), e.right());
        if (of instanceof Expression.Call e) return e.arguments();
        if (of instanceof Expression.Trim e) return some(e.characters(), e.text());
        if (of instanceof Expression.Extract e) return List.of(e.of());
        if (of instanceof Expression.Cast e) return List.of(e.of());
        if (of instanceof Expression.Case e) {
            List<Expression> all = new ArrayList<>(some(e.subject(), e.otherwise()));
            e.whens().forEach(when -> all.addAll(List.of(when.condition(), when.result())));
            return all;
        }
        if (of instanceof Expression.In e) {
            List<Expression> all = new ArrayList<>(e.values());
            all.add(e.of());
            return all;
        }
        if (of instanceof Expression.Between e) return List.of(e.of(), e.low(), e.high());
        if (of instanceof Expression.Like e) return some(e.of(), e.pattern(), e.escape());
        if (of instanceof Expression.Is e) return List.of(e.of());
        if (of instanceof Expression.Distinct e) return List.of(e.left(), e.right());
        if (of instanceof Expression.Window e) {
            List<Expression> all = new ArrayList<>(some(e.argument()));
            e.order().forEach(by -> all.add(by.of()));
            return all;
        }
        if (of instanceof Expression.Summary e) return some(e.argument(), e.beside(), e.fraction(), e.filter());
        return List.of();
    }

    private static List<Expression> some(Expression... of) {
        return Arrays.stream(of).filter(Objects::nonNull).toList();
    }
}
