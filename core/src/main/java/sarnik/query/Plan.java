package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import sarnik.formula.BlockNumbers;
import sarnik.formula.MeasureFormula;
import sarnik.table.Column;
import sarnik.table.SummedColumn;
import sarnik.table.Table;

/** Queries of one grouping made ready for their table: coders and tallies, checked before anything runs. */
final class Plan {

    private static final int MOST_DENSE_GROUPS = 1 << 16;

    /** Whether rows that lack a key are left out, as a step of the trail. */
    final boolean isFilled;
    /** The keys that rows may lack. */
    final KeyCoder[] lacking;

    final KeyCoder[] coders;
    /** How many groups there could be; where they are not dense, more than fit. */
    final long groupSpace;

    /** Whether what the codes of a group come to is its number. */
    final boolean dense;
    /** Numeric columns to sum, and whether their minimum or maximum is wanted. */
    final Map<String, Boolean> tallied = new LinkedHashMap<>();

    final Map<String, KeyCoder> distinct = new LinkedHashMap<>();
    /** Numeric columns of which all values are gathered. */
    final Map<String, Column> gathered = new LinkedHashMap<>();

    private final Table table;
    private final boolean hasFastLongs;
    private final Map<String, FormulaMeasure> formulas;
    /** What formulas sum up, by {@link #partName}. */
    private final Map<String, Column> computed = new LinkedHashMap<>();

    /** What formulas sum up and is worked out on the way, by {@link #partName}. */
    private final Map<String, BlockNumbers> blocks = new LinkedHashMap<>();

    /** What queries have in common that are summed up together. */
    record Grouping(List<GroupKey> keys, Query.Missing missing, Map<String, FormulaMeasure> formulas) {
        static Grouping of(Query query) {
            return new Grouping(query.groupBy(), query.missing(), query.formulas());
        }
    }

    /**
     * @param queries of one grouping
     * @param coder finds the coder of a grouping key
     * @param hasFastLongs see {@link Segments#hasFastLongs}
     */
    Plan(Table table, List<Query> queries, Function<GroupKey, KeyCoder> coder, boolean hasFastLongs) {
        this.table = table;
        this.hasFastLongs = hasFastLongs;
        Query query = queries.get(0);
        this.formulas = query.formulas();
        query.groupBy().forEach(key -> column(key.column()));
        coders = query.groupBy().stream().map(coder).toArray(KeyCoder[]::new);
        isFilled = query.missing() == Query.Missing.LEFT_OUT && coders.length > 0;
        // A key that no row lacks takes no row away; its stage stays a step of the trail.
        lacking = isFilled
                ? Arrays.stream(coders).filter(c -> c.hasMissing(table.rows())).toArray(KeyCoder[]::new)
                : new KeyCoder[0];
        long space = 1;
        for (KeyCoder c : coders) space = Math.min(space, MOST_DENSE_GROUPS + 1) * c.size();
        groupSpace = space;
        dense = space <= MOST_DENSE_GROUPS;
        for (Query one : queries)
            for (Measure measure : one.measures()) add(measure, name -> coder.apply(new GroupKey.Of(name)));
    }

    private void add(Measure measure, Function<String, KeyCoder> coder) {
        if (measure.column() == null) {
            if (measure.summary() != Summary.COUNT) {
                throw new QueryException(
                        phrase("A {0} needs a column", measure.summary().said()));
            }
            return;
        }
        if (measure.summary() == Summary.FORMULA) {
            addParts(measure.column(), coder);
            return;
        }
        Column column = column(measure.column());
        if (measure.isGathered() && column.type().isNumber()) {
            if (column instanceof SummedColumn) throw QueryException.onlySums(measure.column());
            gathered.put(measure.column(), column);
        } else if (measure.summary() == Summary.DISTINCT) {
            distinct.put(measure.column(), coder.apply(measure.column()));
        } else if (column.type().isNumber()) {
            boolean extreme = measure.summary() == Summary.MINIMUM || measure.summary() == Summary.MAXIMUM;
            tallied.merge(measure.column(), extreme, Boolean::logicalOr);
        } else if (measure.summary().needsNumber()) {
            throw new QueryException(phrase(
                    "The {0} needs numbers, but “{1}” holds {2}",
                    measure.summary().said(), measure.column(), column.type().said()));
        } else {
            counted.add(measure.column());
        }
    }

    /** Columns other than numbers whose filled cells are counted. */
    final Set<String> counted = new LinkedHashSet<>();

    /** The formula of this name. */
    FormulaMeasure formula(String name) {
        FormulaMeasure formula = formulas.get(name);
        if (formula == null) throw new QueryException(phrase("There is no measure “{0}” any more", name));
        return formula;
    }

    /** What the n-th part of a formula is called among the tallies; no column of a table is called so. */
    static String partName(String formula, int part) {
        return "@part " + part + " of " + formula;
    }

    private void addParts(String formula, Function<String, KeyCoder> coder) {
        List<MeasureFormula.Part> parts = formula(formula).parts();
        for (int p = 0; p < parts.size(); p++) {
            String name = partName(formula, p);
            MeasureFormula.Part part = parts.get(p);
            if (part.known() != null) {
                distinct.put(name, coder.apply(part.known().column()));
                continue;
            }
            if (part.blocks() != null) blocks.put(name, part.blocks());
            else computed.put(name, part.values());
            if (part.values() instanceof SummedColumn && !part.isSummedUp()) throw QueryException.onlySums(formula);
            if (part.isSummedUp()) tallied.put(name, part.function().startsWith("M"));
            else gathered.put(name, part.values());
        }
    }

    /** How many rows each row stands for; null where each stands for itself. */
    int[] weights() {
        return table.weights();
    }

    /** A tally of what is summed up under this name. */
    Tally tally(String name, int groups, boolean extremes) {
        BlockNumbers numbers = blocks.get(name);
        return numbers == null
                ? new Tally(column(name), groups, extremes)
                : new Tally(numbers, table.weights(), groups, extremes);
    }

    /**
     * Sums of the tallies for rows that follow each other, in their order.
     *
     * @return empty where those are added up as all rows are
     */
    List<PackedSums> packed(Collection<Tally> tallies) {
        boolean isPlain = hasFastLongs && dense && coders.length == 1 && coders[0].codes() != null;
        if (!isPlain || table.weights() != null || !(distinct.isEmpty() && gathered.isEmpty() && counted.isEmpty()))
            return List.of();
        List<PackedSums> packed = new ArrayList<>();
        for (Tally tally : tallies) {
            PackedSums one = tally.packed(coders[0].codes(), coders[0].size());
            if (one == null) return List.of();
            packed.add(one);
        }
        return packed;
    }

    Column column(String name) {
        if (computed.containsKey(name)) return computed.get(name);
        return table.find(name)
                .orElseThrow(() -> new QueryException(phrase("There is no column “{0}” any more", name)));
    }
}
