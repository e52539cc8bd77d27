package sarnik.narrow;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.query.Frame;
import sarnik.query.QueryEngine;
import sarnik.table.CodedColumn;
import sarnik.visual.Asked;

/**
 * The values that a filter offers, each with how many rows have it as the other filters leave them.
 *
 * @param values those that are listed, in the filter's order
 * @param more how many there are beyond those
 */
public record ValueCounts(List<Counted> values, int more) {

    /** So many are listed at once. */
    public static final int MOST = 200;

    /** A value and its rows. */
    public record Counted(String value, long rows) {}

    /**
     * @param find what a value has to hold, in any case; empty for all. Those that begin with it come first
     * @param chosen values that are listed in any case
     * @param offer what the filter offers, for its order
     * @return empty for a filter that offers no values
     */
    public static Optional<ValueCounts> of(
            Wires wires,
            Narrowing narrowing,
            QueryEngine engine,
            String id,
            String find,
            Set<String> chosen,
            FilterOffer offer) {
        Optional<Asked> asked = narrowing.counts(id, other -> true);
        if (asked.isEmpty()) return Optional.empty();
        Map<String, Long> rows = rows(engine, asked.get());
        Set<String> under = new HashSet<>(wires.filters().get(id).how().dependsOn());
        Set<String> left = under.isEmpty()
                ? null
                : rows(engine, narrowing.counts(id, under::contains).orElseThrow())
                        .keySet();
        String column = asked.get().query().groupBy().get(0).column();
        List<String> all = ((CodedColumn) asked.get().dataset().table().column(column)).dictionary();
        String wanted = find.toLowerCase(Locale.ROOT).strip();
        List<String> fitting = new ArrayList<>();
        for (String value : all)
            if ((left == null || left.contains(value))
                    && (wanted.isEmpty() || value.toLowerCase(Locale.ROOT).contains(wanted))) fitting.add(value);
        fitting.sort(order(wanted, rows, chosen, offer));
        List<Counted> listed = fitting.stream()
                .limit(MOST)
                .map(value -> new Counted(value, rows.getOrDefault(value, 0L)))
                .toList();
        return Optional.of(new ValueCounts(listed, fitting.size() - listed.size()));
    }

    private static Comparator<String> order(
            String wanted, Map<String, Long> rows, Set<String> chosen, FilterOffer offer) {
        Map<String, Integer> own = new HashMap<>();
        if (offer.said().get("own") instanceof List<?> sequence)
            for (Object value : sequence) own.put((String) value, own.size());
        Comparator<String> order = Comparator.comparing((String value) -> !chosen.contains(value));
        if (!wanted.isEmpty())
            order = order.thenComparing(value -> !value.toLowerCase(Locale.ROOT).startsWith(wanted));
        order = order.thenComparing(value -> own.getOrDefault(value, Integer.MAX_VALUE));
        if (Boolean.TRUE.equals(offer.said().get("most")))
            order = order.thenComparing(value -> -rows.getOrDefault(value, 0L));
        return order.thenComparing(Comparator.naturalOrder());
    }

    private static Map<String, Long> rows(QueryEngine engine, Asked asked) {
        Frame frame = asked.dataset().answer(engine, asked.query());
        Map<String, Long> rows = new LinkedHashMap<>();
        for (int i = 0; i < frame.keys().get(0).length; i++)
            rows.put(frame.keys().get(0)[i], (long) frame.values().get(0)[i]);
        return rows;
    }
}
