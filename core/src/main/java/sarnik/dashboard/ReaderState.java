package sarnik.dashboard;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Predicate;
import sarnik.scale.NumberWords;

/**
 * What a reader has chosen. With the dashboard it fully determines what is shown.
 *
 * <p>Its text form stands in the web address: {@code f.ID=a,b} for choices, {@code f.ID=2025-06-01..2026-05-31} for
 * dates (either end may be left out), {@code p.ID=a,b} for picks, {@code h.ID=a,b} for layers of a map that are turned
 * from shown to hidden or
 * back, {@code s.ID.LAYER=2} for the measure chosen among those a layer offers for its
 * colour, {@code s.ID.LAYER.size=1} for its size, {@code v.ID=12.5} for the value of a parameter; ids ascending,
 * values percent-encoded.
 *
 * @param choices chosen values by filter
 * @param dates chosen range by filter
 * @param picks picked values by visual
 * @param turned layers turned from shown to hidden or back, by visual
 * @param slots the number of the measure chosen, from 0, by visual and layer with a dot between
 * @param numbers the values of parameters that were set, by parameter
 */
public record ReaderState(
        SortedMap<String, List<String>> choices,
        SortedMap<String, Dates> dates,
        SortedMap<String, List<String>> picks,
        SortedMap<String, List<String>> turned,
        SortedMap<String, Integer> slots,
        SortedMap<String, Double> numbers) {

    public static final ReaderState NOTHING = empty();

    private static ReaderState empty() {
        return new ReaderState(
                new TreeMap<>(), new TreeMap<>(), new TreeMap<>(), new TreeMap<>(), new TreeMap<>(), new TreeMap<>());
    }

    /** Whether the reader has turned a layer from shown to hidden or back. */
    boolean isTurned(String visual, String layer) {
        return turned.getOrDefault(visual, List.of()).contains(layer);
    }

    /**
     * The value of a parameter, as the reader has set it or as it is at first; empty where the dashboard has none of
     * this id.
     */
    Optional<Double> number(Dashboard dashboard, String parameter) {
        return Optional.ofNullable(dashboard.parameters().get(parameter))
                .map(p -> numbers.getOrDefault(parameter, p.value()));
    }

    /** The number of the measure chosen for a layer, from 0. */
    int slot(String visual, String layer) {
        return slots.getOrDefault(visual + "." + layer, 0);
    }

    /**
     * Both ends included; null for open.
     */
    public record Dates(LocalDate from, LocalDate to) {}

    /**
     * A state read from an address.
     *
     * @param state what fits the dashboard
     * @param misfits a sentence for each part that does not
     */
    public record Read(ReaderState state, List<String> misfits) {}

    /**
     * Reads the text form. Whatever does not fit the dashboard or its data is left out and said.
     *
     * @param text the query part of a web address, without its question mark; parts that are not of a state are passed
     *     over
     */
    public static Read parse(String text, Dashboard dashboard, Datasets datasets) {
        ReaderState state = empty();
        List<String> misfits = new ArrayList<>();
        for (String part : text == null ? new String[0] : text.split("&")) {
            int equals = part.indexOf('=');
            if (equals < 3 || part.charAt(1) != '.') continue;
            String id = decode(part.substring(2, equals));
            String value = part.substring(equals + 1);
            if (value.isEmpty()) continue;
            if (part.charAt(0) == 'f')
                state.readFilter(id, value, dashboard.filters().get(id), misfits);
            else if (part.charAt(0) == 'p')
                state.readPick(id, value, dashboard.visuals().get(id), misfits);
            else if (part.charAt(0) == 'h')
                state.readTurned(id, value, dashboard.visuals().get(id), misfits);
            else if (part.charAt(0) == 's') state.readSlot(id, value, dashboard, misfits);
            else if (part.charAt(0) == 'v')
                state.readNumber(id, value, dashboard.parameters().get(id), misfits);
        }
        state.choices.entrySet().removeIf(e -> {
            Filter filter = dashboard.filters().get(e.getKey());
            return leaveStrangers(e, new Narrowing.Source(filter.dataset(), filter.column()), datasets, misfits);
        });
        state.picks
                .entrySet()
                .removeIf(e -> dashboard.visuals().get(e.getKey()) instanceof Visual.OfMap map
                        ? leaveStrangers(e, map, datasets, misfits)
                        : leaveStrangers(e, Narrowing.source(dashboard.visuals().get(e.getKey())), datasets, misfits));
        return new Read(state, List.copyOf(misfits));
    }

    /** So many strangers are named. */
    private static final int MOST_NAMED = 12;

    /** Leaves out values that no row has; whether none is left. A dataset that has gone is told by the visuals. */
    private static boolean leaveStrangers(
            Map.Entry<String, List<String>> chosen, Narrowing.Source source, Datasets datasets, List<String> misfits) {
        Datasets.Found found = datasets.find(source.dataset());
        // What cannot be asked just now is not known to be a stranger.
        if (found instanceof Datasets.Found.Unfit) return false;
        if (!(found instanceof Datasets.Found.Ready ready)) return true;
        LoadedDataset dataset = ready.dataset();
        Set<String> known = dataset.having(source.column(), chosen.getValue());
        return leaveStrangers(
                chosen,
                known::contains,
                dataset.name() + " does not have in " + ColumnWords.of(source.column()),
                misfits);
    }

    /** Leaves out places that no layer of a map shows. */
    private static boolean leaveStrangers(
            Map.Entry<String, List<String>> chosen, Visual.OfMap map, Datasets datasets, List<String> misfits) {
        List<LoadedDataset> shown = map.layers().values().stream()
                .flatMap(layer -> datasets.ready(layer.dataset()).stream())
                .distinct()
                .toList();
        if (map.layers().values().stream()
                .anyMatch(layer -> datasets.find(layer.dataset()) instanceof Datasets.Found.Unfit)) return false;
        if (shown.isEmpty()) return true;
        return leaveStrangers(
                chosen,
                v -> map.layers().values().stream()
                        .anyMatch(layer -> datasets.ready(layer.dataset())
                                .flatMap(d -> d.shown(layer, v))
                                .isPresent()),
                String.join(" and ", shown.stream().map(LoadedDataset::name).toList()) + " does not have in place",
                misfits);
    }

    private static boolean leaveStrangers(
            Map.Entry<String, List<String>> chosen, Predicate<String> isKnown, String where, List<String> misfits) {
        List<String> known = chosen.getValue().stream().filter(isKnown).toList();
        if (known.size() < chosen.getValue().size()) {
            List<String> strangers = chosen.getValue().stream()
                    .filter(isKnown.negate())
                    .limit(MOST_NAMED)
                    .toList();
            misfits.add("The address asks for %s, which %s; it is left out."
                    .formatted(Narrowing.list(strangers, "and"), where));
            chosen.setValue(known);
        }
        return known.isEmpty();
    }

    private void readFilter(String id, String value, Filter filter, List<String> misfits) {
        if (filter == null) {
            misfits.add("The address names a filter that this dashboard no longer has; it is left out.");
        } else if (filter instanceof Filter.Choice) {
            choices.put(id, values(value));
        } else {
            String[] ends = decode(value).split("\\.\\.", -1);
            try {
                if (ends.length != 2) throw new DateTimeException(value);
                Dates range = new Dates(date(ends[0]), date(ends[1]));
                if (range.from != null && range.to != null && range.from.isAfter(range.to)) {
                    range = new Dates(range.to, range.from);
                }
                if (range.from != null || range.to != null) dates.put(id, range);
            } catch (DateTimeException unreadable) {
                misfits.add("The address holds no date range that can be read for “" + filter.words()
                        + "”; it is left out.");
            }
        }
    }

    private void readPick(String id, String value, Visual visual, List<String> misfits) {
        if (visual == null || visual instanceof Visual.OfFigure) {
            misfits.add("The address names a pick on a visual that this dashboard no longer has; it is left out.");
        } else {
            picks.put(id, values(value));
        }
    }

    private void readTurned(String id, String value, Visual visual, List<String> misfits) {
        if (!(visual instanceof Visual.OfMap map)) {
            misfits.add("The address names layers of a map that this dashboard no longer has; they are left out.");
            return;
        }
        List<String> known =
                values(value).stream().filter(map.layers()::containsKey).toList();
        if (!known.isEmpty()) turned.put(id, known);
    }

    private void readSlot(String id, String value, Dashboard dashboard, List<String> misfits) {
        int dot = id.indexOf('.');
        boolean fits = dot > 0
                && dashboard.visuals().get(id.substring(0, dot)) instanceof Visual.OfMap map
                && map.layers().containsKey(id.substring(dot + 1).replaceFirst("\\.size$", ""));
        if (!fits || !value.matches("\\d{1,3}"))
            misfits.add("The address chooses a measure for a layer that this dashboard no longer has; it is left out.");
        else if (Integer.parseInt(value) > 0) slots.put(id, Integer.parseInt(value));
    }

    private void readNumber(String id, String value, Parameter parameter, List<String> misfits) {
        if (parameter == null) {
            misfits.add("The address sets a number that this dashboard no longer has; it is left out.");
            return;
        }
        try {
            double number = Double.parseDouble(decode(value));
            if (!parameter.allows(number))
                misfits.add("The address sets %s to %s, which lies beyond what it can be; it is left out."
                        .formatted(parameter.name(), NumberWords.full(number)));
            else if (number != parameter.value()) numbers.put(id, number);
        } catch (NumberFormatException odd) {
            misfits.add(
                    "The address sets %s to something that is no number; it is left out.".formatted(parameter.name()));
        }
    }

    private static LocalDate date(String text) {
        return text.isEmpty() ? null : LocalDate.parse(text);
    }

    private static List<String> values(String joined) {
        return Arrays.stream(joined.split(","))
                .filter(v -> !v.isEmpty())
                .map(ReaderState::decode)
                .distinct()
                .sorted()
                .toList();
    }

    /** The canonical text form; empty when nothing is chosen. */
    public String text() {
        SortedMap<String, String> parts = new TreeMap<>();
        choices.forEach((id, values) -> parts.put("f." + encode(id), join(values)));
        dates.forEach((id, range) -> parts.put("f." + encode(id), end(range.from) + ".." + end(range.to)));
        picks.forEach((id, values) -> parts.put("p." + encode(id), join(values)));
        turned.forEach((id, layers) -> parts.put("h." + encode(id), join(layers)));
        slots.forEach((id, slot) -> parts.put("s." + encode(id), String.valueOf(slot)));
        numbers.forEach((id, number) -> parts.put("v." + encode(id), plain(number)));
        StringBuilder text = new StringBuilder();
        parts.forEach((name, value) -> {
            if (!value.isEmpty())
                text.append(text.length() == 0 ? "" : "&")
                        .append(name)
                        .append('=')
                        .append(value);
        });
        return text.toString();
    }

    private static String plain(double number) {
        return new BigDecimal(number)
                .setScale(9, RoundingMode.HALF_EVEN)
                .stripTrailingZeros()
                .toPlainString();
    }

    /** This state without the filter, pick or number of this id. */
    public ReaderState without(String id) {
        return new ReaderState(less(choices, id), less(dates, id), less(picks, id), turned, slots, less(numbers, id));
    }

    private static <V> SortedMap<String, V> less(Map<String, V> all, String id) {
        SortedMap<String, V> rest = new TreeMap<>(all);
        rest.remove(id);
        return rest;
    }

    private static String end(LocalDate date) {
        return date == null ? "" : date.toString();
    }

    private static String join(List<String> values) {
        return String.join(
                ",", values.stream().sorted().map(ReaderState::encode).toList());
    }

    private static String encode(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private static String decode(String text) {
        try {
            return URLDecoder.decode(text, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException broken) {
            return text;
        }
    }
}
