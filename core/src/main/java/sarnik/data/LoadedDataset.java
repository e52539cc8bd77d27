package sarnik.data;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import sarnik.geo.Area;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.scale.ValueWords;
import sarnik.statistics.RateOf;
import sarnik.table.CodedColumn;
import sarnik.table.Table;

/**
 * A dataset's newest version, ready to be asked.
 *
 * @param id the dataset
 * @param name what it is called
 * @param table its rows; with the columns of {@link PlacedTable} if it is placed
 * @param placing how it is placed; null if it is not
 * @param places the places that occur, by id
 * @param about what is told of it
 * @param measures its measure formulas by name
 * @param standing its standing rules, by their text
 * @param ties its columns that mean the same as columns of others
 * @param rolledUp its places put together, as far as that has been asked for
 * @param previews its measures over all rows, once they have been asked for
 * @param worked what was worked out of its rows
 */
public record LoadedDataset(
        long id,
        String name,
        Table table,
        Placing placing,
        Map<String, Place> places,
        About about,
        Map<String, FormulaMeasure> measures,
        List<Stage> standing,
        List<Tie> ties,
        RolledUp rolledUp,
        Previews previews,
        WorkedOut worked) {

    /** A dataset whose places can be put together by the areas of boundary sets. */
    public LoadedDataset(
            long id,
            String name,
            Table table,
            Placing placing,
            Map<String, Place> places,
            About about,
            Map<String, FormulaMeasure> measures,
            List<Stage> standing,
            List<Tie> ties,
            Boundaries boundaries) {
        this(
                id,
                name,
                table,
                placing,
                places,
                about,
                measures,
                standing,
                ties,
                new RolledUp(boundaries),
                new Previews(),
                new WorkedOut());
    }

    /** A dataset of which nothing is told. */
    public LoadedDataset(long id, String name, Table table, Placing placing, Map<String, Place> places) {
        this(id, name, table, placing, places, About.NONE, Map.of(), List.of(), List.of(), Boundaries.NONE);
    }

    /**
     * The same rows under another name, with other words about them and other ties. What was worked out of them is
     * shared.
     */
    public LoadedDataset described(String name, About about, List<Tie> ties) {
        return new LoadedDataset(
                id, name, table, placing, places, about, measures, standing, ties, rolledUp, previews, worked);
    }

    /** The same rows with measures of a dashboard beside its own. */
    public LoadedDataset beside(Map<String, FormulaMeasure> more) {
        Map<String, FormulaMeasure> all = new LinkedHashMap<>(measures);
        all.putAll(more);
        return new LoadedDataset(
                id, name, table, placing, places, about, all, standing, ties, rolledUp, worked.previews(more), worked);
    }

    /** Answers a query, whose measures may name measure formulas of this dataset. */
    public Frame answer(QueryEngine engine, Query query) {
        return engine.answer(table, query.with(measures));
    }

    /** This dataset with a column of {@link RolledUp} beside its own. */
    public LoadedDataset with(String column) {
        Table more = rolledUp.with(column, table, places);
        return more == table
                ? this
                : new LoadedDataset(
                        id, name, more, placing, places, about, measures, standing, ties, rolledUp, previews, worked);
    }

    /** The places that are the values of a column: the dataset's own, or those of {@link RolledUp}; none of others. */
    public Map<String, Place> placesOf(String column) {
        if (column.equals(PlacedTable.PLACE) || column.equals(PlacedTable.ORIGIN)) return places;
        return RolledUp.isOne(column) ? rolledUp.groups(column, places).places() : Map.of();
    }

    /** The place of this id: its own, or an area of a set that its places are counted by. */
    public Optional<Place> shown(String set, String id) {
        Place own = places.get(id);
        if (own != null || set == null || !id.startsWith("a" + set + "/")) return Optional.ofNullable(own);
        try {
            return Optional.ofNullable(placesOf(RolledUp.column(set)).get(id));
        } catch (MisfitException gone) {
            return Optional.empty();
        }
    }

    /** The credit that the licence of a boundary set asks for. */
    public Optional<String> creditOf(String set) {
        return rolledUp.credit(set);
    }

    /** The areas of a boundary set; none where it has gone. */
    public List<Area> areasOf(String set) {
        return rolledUp.areas(set);
    }

    /** By the id of an area of a boundary set the ids of those that touch it; empty where the set has gone. */
    public Optional<Map<String, List<String>>> touching(String set) {
        return rolledUp.touching(set);
    }

    /** The shapes that its rows brought along; empty where they have none. */
    public Optional<OwnShapes> ownShapes() {
        return rolledUp.ownShapes(table, places);
    }

    /** The places of a column as the browser keeps them. */
    public PlaceSheet sheet(String column) {
        return rolledUp.sheet(column, placesOf(column));
    }

    /**
     * Places of this dataset that picked places mean: themselves, and all that lie in a picked area.
     *
     * @param picked ids of places and areas
     */
    public List<String> meant(List<String> picked) {
        List<String> meant = new ArrayList<>();
        for (String id : picked) {
            int slash = id.indexOf('/');
            if (places.containsKey(id) || !id.startsWith("a") || slash < 0) meant.add(id);
            else
                rolledUp.groups(RolledUp.column(id.substring(1, slash)), places)
                        .of()
                        .forEach((place, area) -> {
                            if (area.equals(id)) meant.add(place);
                        });
        }
        return meant;
    }

    /** The areas of a boundary set that hold places of this dataset. */
    List<String> holding(String set, List<String> ids) {
        Map<String, String> areas =
                rolledUp.groups(RolledUp.column(set), places).of();
        return ids.stream().map(areas::get).filter(Objects::nonNull).distinct().toList();
    }

    /** A measure as readers see it, with its unit where one is told. */
    public String words(Measure measure) {
        String unit =
                measure.column() == null || measure.summary() == Summary.COUNT || measure.summary() == Summary.DISTINCT
                        ? ""
                        : about.unit(measure.column());
        return ColumnWords.of(measure) + (unit.isEmpty() ? "" : ", " + unit);
    }

    /** How the values of a measure are read. */
    public ValueWords read(Measure measure) {
        FormulaMeasure formula = measure.summary() == Summary.FORMULA ? measures.get(measure.column()) : null;
        return formula == null ? ValueWords.NUMBER : formula.read();
    }

    /**
     * A rate: what is counted, and what it could happen to.
     *
     * @param dataset this one, where both can be asked
     * @param times what the quotient is multiplied with
     * @param counted whether both are numbers of rows or of values
     */
    public record Rate(LoadedDataset dataset, Measure events, Measure over, double times, boolean counted) {

        /** A rate for so many or more is taken for one of events. */
        private static final double FOR_MANY = 1000;

        /** Whether it is said for a round number of many: such rates count what happens to people or things. */
        public boolean isForMany() {
            double power = Math.log10(times);
            return times >= FOR_MANY && Math.abs(power - Math.rint(power)) < 1e-9;
        }

        /**
         * What it is of, as far as that can be guessed: a share where rows are counted and no group has more than it
         * has rows; events where whole numbers are counted for so many of something.
         *
         * @param events by group
         * @param over by group
         * @return null where it cannot be told
         */
        public RateOf guessed(double[] events, double[] over) {
            boolean fits = true;
            for (int g = 0; g < events.length; g++) {
                if (!Double.isNaN(events[g]) && (events[g] != Math.rint(events[g]) || events[g] < 0)) return null;
                fits &= !(events[g] > over[g]);
            }
            if (counted) return fits ? RateOf.SHARE : null;
            return isForMany() ? RateOf.EVENTS : null;
        }

        /** Whether {@link #guessed} may tell. */
        public boolean mayBeGuessed() {
            return counted || isForMany();
        }
    }

    /** Whether what a measure comes to in groups adds up to what it comes to in all of them together. */
    public boolean addsUp(Measure measure) {
        if (measure.summary() != Summary.FORMULA)
            return Telling.addsUp(measure) && read(measure).isAmount();
        FormulaMeasure formula = measures.get(measure.column());
        return measure.over() == null && formula != null && formula.addsUp();
    }

    /** Whether a measure of one group rests on the others as well: a share of all, a place by size. */
    public boolean isAmongGroups(Measure measure) {
        if (measure.over() != null) return true;
        FormulaMeasure formula = measure.summary() == Summary.FORMULA ? measures.get(measure.column()) : null;
        return formula != null && !formula.windows().isEmpty();
    }

    /** The two sums that a measure divides; empty where it is no rate. */
    public Optional<Rate> rate(Measure measure) {
        if (measure.summary() != Summary.FORMULA || measure.over() != null) return Optional.empty();
        FormulaMeasure formula = measures.get(measure.column());
        return Optional.ofNullable(formula).flatMap(worked::ratio).map(ratio -> {
            Measure events = new Measure(Summary.FORMULA, "@counted:" + measure.column());
            Measure over = new Measure(Summary.FORMULA, "@over:" + measure.column());
            return new Rate(
                    beside(Map.of(events.column(), ratio.above(), over.column(), ratio.over())),
                    events,
                    over,
                    ratio.times(),
                    ratio.counted());
        });
    }

    /**
     * Names of the columns that a visual can use: all but those that stand for standing, and whole shapes, which are no
     * words.
     */
    public List<String> columnNames() {
        return table.names().stream()
                .filter(name -> !name.startsWith(Calculations.RULE) && !OwnShapes.isShapes(table, name))
                .toList();
    }

    /**
     * The standing rules, each a stage of every query, in words of the language that is spoken.
     *
     * @throws MisfitException when one does not work any more: without it other rows would count
     */
    public List<Stage> rules() {
        for (Stage rule : standing)
            for (Condition condition : rule.conditions())
                if (condition instanceof Condition.OneOf one
                        && one.column().startsWith(Calculations.RULE)
                        && table.find(one.column()).isEmpty())
                    throw new MisfitException(phrase(
                            "“{0}” always shows only rows where {1}, which does not work with the rows that it has now. Until that is mended no figure of it can be told.",
                            name, rule.words()));
        return standing.stream()
                .map(rule -> new Stage(phrase("Always only rows where {0}", rule.words()), rule.conditions()))
                .toList();
    }

    public boolean isPlaced() {
        return placing != null;
    }

    /** What a value of a column is called: places by name, all else as it stands. */
    public String label(String column, String value) {
        boolean isPlace = column.equals(PlacedTable.PLACE)
                || column.equals(PlacedTable.ORIGIN)
                || RolledUp.isOne(column) && !RolledUp.isCells(column);
        if (value == null) return isPlace ? phrase("(unplaced)") : phrase("(missing)");
        if (!isPlace) return value;
        return Optional.ofNullable(placesOf(column).get(value)).map(Place::said).orElse(value);
    }

    /** Which of some values a row has in a column of text, yes/no or places; other columns are taken to have any. */
    public Set<String> having(String column, Collection<String> values) {
        Set<String> asked = new HashSet<>(values);
        if (column.equals(PlacedTable.PLACE)) {
            asked.retainAll(places.keySet());
        } else if (table.find(column).isEmpty()) {
            asked.clear();
        } else if (table.column(column) instanceof CodedColumn coded) {
            // Gone through once, however many are asked for.
            Set<String> known = new HashSet<>();
            for (String word : coded.dictionary()) if (asked.contains(word)) known.add(word);
            return known;
        }
        return asked;
    }
}
