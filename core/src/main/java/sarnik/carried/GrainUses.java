package sarnik.carried;

import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DocumentJson;
import sarnik.data.Template;
import sarnik.formula.MeasureFormula;
import sarnik.query.ExactSums;
import sarnik.query.FormulaMeasure;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/**
 * What a dashboard asks of the columns of its datasets: which it only ever sums up, and by which steps of time it goes.
 */
final class GrainUses {

    /** The finest stretch of time that is told apart. */
    enum Grain {
        MINUTE,
        /** All time zones differ by whole quarters of an hour. */
        QUARTER_OF_AN_HOUR,
        HOUR,
        DAY,
        WEEK,
        MONTH;

        private static final int SECONDS_A_DAY = 86_400;

        /** The number of the stretch that a moment lies in. */
        long number(long seconds) {
            return switch (this) {
                case MINUTE -> Math.floorDiv(seconds, 60L);
                case QUARTER_OF_AN_HOUR -> Math.floorDiv(seconds, 900L);
                case HOUR -> Math.floorDiv(seconds, 3600L);
                case DAY -> Math.floorDiv(seconds, (long) SECONDS_A_DAY);
                case WEEK, MONTH -> ofDay(Math.floorDiv(seconds, (long) SECONDS_A_DAY));
            };
        }

        /** The number of the stretch that a day lies in. */
        long ofDay(long day) {
            return switch (this) {
                case MONTH -> TimeStep.MONTH.number(day, 0);
                case WEEK -> TimeStep.WEEK.number(day, 0);
                default -> day;
            };
        }

        static Grain of(TimeStep step, boolean zoned) {
            return switch (step) {
                case MINUTE -> MINUTE;
                case HOUR, HOUR_OF_DAY -> zoned ? QUARTER_OF_AN_HOUR : HOUR;
                case DAY, WEEKDAY -> zoned ? QUARTER_OF_AN_HOUR : DAY;
                case WEEK -> zoned ? QUARTER_OF_AN_HOUR : WEEK;
                case MONTH, QUARTER, YEAR, MONTH_OF_YEAR -> zoned ? QUARTER_OF_AN_HOUR : MONTH;
            };
        }

        /** The coarsest that tells apart all that these do; null for none. */
        static Grain finest(Set<Grain> grains) {
            // Months begin within weeks.
            if (grains.equals(EnumSet.of(WEEK, MONTH))) return DAY;
            return grains.stream().min(Enum::compareTo).orElse(null);
        }
    }

    private static final Set<Summary> RUNNING =
            EnumSet.of(Summary.SUM, Summary.AVERAGE, Summary.COUNT, Summary.MINIMUM, Summary.MAXIMUM);

    /** What says by which column of time something goes, where it says a step beside it. */
    private static final List<String> ALONG = List.of("column", "time", "category", "over");

    /** How columns are summed up, as far as that is all that is asked of them there. */
    private final Map<String, Set<Summary>> summed = new HashMap<>();

    private final Map<String, Set<Grain>> stepped = new HashMap<>();

    /** All other words of the document. */
    private final StringBuilder rest = new StringBuilder();

    GrainUses(Dashboard dashboard) {
        go(DocumentJson.plain(dashboard));
    }

    private void go(Object part) {
        if (part instanceof Map<?, ?> map) ofParts(map);
        else if (part instanceof Collection<?> list) list.forEach(this::go);
        else if (part instanceof String words) rest.append(words).append('\n');
    }

    /** Titles are words for people; they ask for a column only where they hold it in braces. */
    private static boolean isProse(Object key, Object value) {
        return "title".equals(key)
                && value instanceof String words
                && Template.of(words).fields().isEmpty();
    }

    private void ofParts(Map<?, ?> map) {
        Set<Object> told = new HashSet<>();
        Summary summary = running(map);
        if (summary != null) {
            summed.computeIfAbsent(String.valueOf(map.get("column")), c -> EnumSet.noneOf(Summary.class))
                    .add(summary);
            told.add("column");
        } else if (map.get("step") instanceof String step) {
            Grain grain = grain(map, TimeStep.valueOf(step));
            for (String along : ALONG)
                if (grain != null && map.get(along) instanceof String column && told.add(along))
                    stepped.computeIfAbsent(column, c -> EnumSet.noneOf(Grain.class))
                            .add(grain);
        } else if ("dates".equals(map.get("type")) && map.get("column") instanceof String column) {
            stepped.computeIfAbsent(column, c -> EnumSet.noneOf(Grain.class)).add(Grain.DAY);
            told.add("column");
        }
        map.forEach((key, value) -> {
            rest.append(key).append('\n');
            if (!told.contains(key) && !isProse(key, value)) go(value);
        });
    }

    /**
     * The finest stretch of time that a part of the document with a step tells apart; null where moments count. The last
     * three months begin with a day, and whether a month is over is told by its newest day.
     */
    private static Grain grain(Map<?, ?> map, TimeStep step) {
        if (!"LAST".equals(map.get("is")) && !"unlikely".equals(map.get("type")))
            return Grain.of(step, map.get("zone") != null);
        return step.needsTime() ? null : Grain.DAY;
    }

    /** How a part of the document sums a column up; null where it is no measure that running sums are enough for. */
    private static Summary running(Map<?, ?> map) {
        if (!(map.get("summary") instanceof String name) || !(map.get("column") instanceof String)) return null;
        Summary summary = Summary.valueOf(name);
        return RUNNING.contains(summary) ? summary : null;
    }

    /**
     * What is asked of a table.
     *
     * @param summed columns of which nothing but running sums are asked for, and whether also for the smallest or
     *     largest
     * @param steps the finest stretch of time that columns of time are asked by; without those whose moments are asked
     *     for
     */
    record Uses(Map<String, Boolean> summed, Map<String, Grain> steps) {}

    /**
     * What is asked of a table.
     *
     * @param needed columns whose values are needed for another reason, such as ties
     * @param formulas measure formulas that are asked for, each with what it is made of
     * @return null where sums that are added in another order would differ
     */
    Uses of(Table table, Set<String> needed, Map<MeasureFormula, FormulaMeasure> formulas) {
        for (FormulaMeasure formula : formulas.values())
            if (!formula.parts().stream().allMatch(GrainUses::isFree)) return null;
        Map<String, Boolean> sums = new HashMap<>();
        Map<String, Grain> steps = new HashMap<>();
        for (String name : table.names()) {
            Column column = table.column(name);
            Set<Summary> how = summed.getOrDefault(name, Set.of());
            boolean isExact = ExactSums.unit(column) != 0;
            if (!isExact && column.type().isNumber() && (how.contains(Summary.SUM) || how.contains(Summary.AVERAGE)))
                return null;
            if (needed.contains(name) || Carrier.names(rest.toString(), name)) continue;
            boolean isGathered = formulas.keySet().stream()
                    .anyMatch(formula -> formula.columns().contains(name)
                            && !formula.summed(f -> true).contains(name));
            if (isGathered) continue;
            boolean extremes = how.contains(Summary.MINIMUM)
                    || how.contains(Summary.MAXIMUM)
                    || formulas.keySet().stream()
                            .anyMatch(formula ->
                                    formula.summed(f -> f.startsWith("M")).contains(name));
            if (column.type() == ColumnType.DATE || column.type() == ColumnType.TIME) {
                Grain finest = Grain.finest(stepped.getOrDefault(name, Set.of()));
                if (finest != null && how.isEmpty()) steps.put(name, finest);
            } else if (isExact && !name.startsWith("@")) {
                sums.put(name, extremes);
            }
        }
        return new Uses(sums, steps);
    }

    /** Whether it comes to the same in whatever order its rows are taken. */
    private static boolean isFree(MeasureFormula.Part part) {
        if (part.blocks() != null || part.pair() != null) return false;
        boolean adds = part.function().equals("SUM") || part.function().equals("AVG");
        return !adds || part.known() != null || part.distinct() || ExactSums.unit(part.values()) != 0;
    }
}
