package sarnik.finding;

import static sarnik.language.Language.phrase;

import java.math.BigDecimal;
import java.text.Normalizer;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.data.LoadedDataset;
import sarnik.data.RolledUp;
import sarnik.narrow.Filter;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.narrow.Registry;
import sarnik.narrow.Wires;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.scale.NumberWords;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;
import sarnik.visual.Source;
import sarnik.visual.Visual;

/**
 * Reads what a reader types to narrow a page: "still, Soria and Zamora, since June". Words are looked for among the
 * values of all filters of the page and of all columns by which something can be picked on it, among places and areas,
 * named rules, days and bounds. Slips of the pen are forgiven and said; of a word with several meanings the others are
 * given.
 */
public final class Finder {

    /** Words in a value that is looked for. */
    private static final int LONGEST = 6;

    private static final int MOST_OTHERS = 5;
    private static final Set<String> BETWEEN = Set.of(
            "and", "or", "in", "the", "of", "for", "only", "with", "is", "are", "by", "at", "show", "me", "just");

    private final Wires wires;
    private final Registry kinds;
    private final FilterScene scene;
    private final String page;
    private final Map<String, List<Meaning>> index = new LinkedHashMap<>();

    /**
     * A meaning of some words.
     *
     * @param part of the reader's state
     * @param id the filter or visual
     * @param value what it is set to
     * @param words as people read it: "Product: still"
     */
    public record Meaning(Part part, String id, Value value, String words) {}

    /**
     * Words that were understood.
     *
     * @param said as they were typed
     * @param words what they are taken for
     * @param note what was guessed, or that a slip was forgiven; empty where nothing was
     * @param part the part of a state that sets them alone
     * @param others what else they could mean, each as a part of a state with its words
     */
    public record Understood(String said, String words, String note, String part, List<Other> others) {}

    /** Another meaning. */
    public record Other(String words, String part) {}

    /**
     * What was read.
     *
     * @param understood in the order of the words
     * @param missed words that mean nothing here
     * @param state the reader's state with what was understood
     */
    public record Found(List<Understood> understood, List<String> missed, String state) {}

    /** @param page the page that is looked at */
    public Finder(Wires wires, Registry kinds, FilterScene scene, String page) {
        this.wires = wires;
        this.kinds = kinds;
        this.scene = scene;
        this.page = page;
        for (String id : wires.filtersOf(page)) filter(id, wires.filters().get(id));
        wires.visuals().forEach((id, visual) -> {
            if (visual.page().equals(page)) visual(id, visual);
        });
    }

    private void filter(String id, Filter filter) {
        FilterKind<Filter> kind = kinds.of(filter);
        FilterOffer offer = FilterOffer.of(filter, scene, kinds);
        if (offer.misfit() != null) return;
        LoadedDataset dataset = scene.of(filter).orElse(null);
        if (dataset == null) return;
        if (kind.counted(filter).isPresent()) {
            Column column = dataset.table().column(filter.column());
            boolean yesNo = ((CodedColumn) column).dictionary().equals(CodedColumn.NO_YES);
            for (String value : ((CodedColumn) column).dictionary()) {
                Meaning meaning = new Meaning(
                        Part.FILTER, id, new Value.Choice(List.of(value)), phrase("{0}: {1}", filter.words(), value));
                // Yes and no are said with what they are about.
                know(yesNo ? filter.words() + " " + value : value, meaning);
            }
        } else if (offer.said().get("names") instanceof Map<?, ?> names) {
            names.forEach((rule, name) -> know(
                    (String) name,
                    new Meaning(Part.FILTER, id, new Value.Choice(List.of((String) rule)), "“" + name + "”")));
        } else if (offer.said().get("areas") instanceof List<?> areas) {
            for (Object one : areas) {
                Map<?, ?> area = (Map<?, ?>) one;
                know((String) area.get("name"), place(id, filter, (String) area.get("id"), (String) area.get("name")));
            }
            for (Place place : dataset.placesOf(filter.column()).values())
                called(place, place(id, filter, place.id(), place.said()));
        }
    }

    /** A place goes by what it is called here and by its own name. */
    private void called(Place place, Meaning meaning) {
        know(place.said(), meaning);
        if (!place.name().equals(place.said())) know(place.name(), meaning);
    }

    private static Meaning place(String id, Filter filter, String place, String name) {
        return new Meaning(Part.FILTER, id, new Value.Choice(List.of(place)), phrase("{0}: {1}", filter.words(), name));
    }

    private void visual(String id, Visual visual) {
        Optional<Source> source = kinds.of(visual).picks(visual);
        LoadedDataset dataset =
                source.flatMap(s -> scene.datasets().ready(s.dataset())).orElse(null);
        if (dataset == null) return;
        String column = source.get().column();
        boolean isPlace = column.equals(PlacedTable.PLACE) || RolledUp.isOne(column);
        if (!isPlace && !(dataset.table().find(column).orElse(null) instanceof CodedColumn)) return;
        if (isPlace) dataset.placesOf(column).forEach((place, of) -> called(of, picked(id, visual, place, of.said())));
        else
            for (String value : ((CodedColumn) dataset.table().column(column)).dictionary())
                know(value, picked(id, visual, value, value));
    }

    private Meaning picked(String id, Visual visual, String value, String name) {
        return new Meaning(
                Part.PICK, id, new Value.Values(List.of(value)), phrase("{0}, picked on {1}", name, called(visual)));
    }

    private String called(Visual visual) {
        return visual.title() == null || visual.title().isBlank()
                ? kinds.of(visual).words(visual)
                : visual.title();
    }

    private void know(String words, Meaning meaning) {
        String plain = plain(words);
        if (!plain.isEmpty())
            index.computeIfAbsent(plain, k -> new ArrayList<>()).add(meaning);
    }

    /** In small letters without accents and signs. */
    static String plain(String words) {
        StringBuilder plain = new StringBuilder();
        Normalizer.normalize(words, Normalizer.Form.NFKD)
                .toLowerCase(Locale.ROOT)
                .codePoints()
                .filter(c -> !isMark(Character.getType(c)))
                .forEach(c -> {
                    if (c == '.' || c == '-' || Character.isLetterOrDigit(c)) plain.appendCodePoint(c);
                    else if (!plain.isEmpty() && plain.charAt(plain.length() - 1) != ' ') plain.append(' ');
                });
        return plain.toString().strip();
    }

    private static boolean isMark(int type) {
        return type == Character.NON_SPACING_MARK
                || type == Character.COMBINING_SPACING_MARK
                || type == Character.ENCLOSING_MARK;
    }

    /** Reads a text. @param state what the reader has chosen before */
    public Found read(String text, ReaderState state) {
        List<Understood> understood = new ArrayList<>();
        Set<String> missed = new LinkedHashSet<>();
        ReaderState next = state;
        Set<String> touched = new LinkedHashSet<>();
        String joined = TypedNumbers.joined(text, word -> index.containsKey(plain(word)));
        for (String clause : joined.split("[,;]")) {
            String[] words = clause.strip().split("\\s+");
            for (int at = 0; at < words.length; ) {
                Reading reading = reading(words, at);
                if (reading == null) {
                    if (!isBetween(words[at])) missed.add(words[at]);
                    at++;
                    continue;
                }
                at += reading.count;
                Meaning meaning = reading.meanings.get(0);
                next = with(next, meaning, touched.add(meaning.part() + meaning.id()));
                understood.add(new Understood(
                        reading.said,
                        meaning.words(),
                        reading.note,
                        ReaderState.NOTHING
                                .with(meaning.part(), meaning.id(), meaning.value())
                                .text(),
                        reading.meanings.stream()
                                .skip(1)
                                .limit(MOST_OTHERS)
                                .map(other -> new Other(
                                        other.words(),
                                        ReaderState.NOTHING
                                                .with(other.part(), other.id(), other.value())
                                                .text()))
                                .toList()));
            }
        }
        return new Found(understood, List.copyOf(missed), next.text());
    }

    private static boolean isBetween(String word) {
        String english = TypedWords.english(plain(word));
        return english.isEmpty() || BETWEEN.contains(english);
    }

    /** What is said anew takes the place of what was chosen before; several values of one filter stand together. */
    private static ReaderState with(ReaderState state, Meaning meaning, boolean first) {
        Value before = first
                ? null
                : state.get(meaning.part(), meaning.id(), Value.class).orElse(null);
        Value value = meaning.value();
        if (before instanceof Value.Choice old && value instanceof Value.Choice added)
            value = new Value.Choice(both(old.values(), added.values()));
        else if (before instanceof Value.Values old && value instanceof Value.Values added)
            value = new Value.Values(both(old.values(), added.values()));
        return state.with(meaning.part(), meaning.id(), value);
    }

    private static List<String> both(List<String> some, List<String> others) {
        List<String> all = new ArrayList<>(some);
        all.addAll(others);
        return all;
    }

    private record Reading(int count, String said, String note, List<Meaning> meanings) {}

    /** The longest words from a place on that mean something; null where none do. */
    private Reading reading(String[] words, int at) {
        for (int count = Math.min(DayPhrases.LONGEST, words.length - at); count > 0; count--) {
            String said = String.join(" ", List.of(words).subList(at, at + count));
            Reading found = exactly(said, count);
            if (found != null) return found;
        }
        for (int count = Math.min(LONGEST, words.length - at); count > 0; count--) {
            String said = String.join(" ", List.of(words).subList(at, at + count));
            Reading found = nearly(said, count);
            if (found != null) return found;
        }
        return null;
    }

    private Reading exactly(String said, int count) {
        String plain = plain(said);
        List<Meaning> known = index.get(plain);
        if (known != null) return new Reading(count, said, "", inOrder(known));
        String english = TypedWords.english(plain);
        Reading days = days(english, said, count);
        return days != null ? days : bound(plain, said, count);
    }

    /** Filters before picks: they say more plainly what they keep. */
    private static List<Meaning> inOrder(List<Meaning> meanings) {
        return meanings.stream()
                .sorted(Comparator.comparing((Meaning m) -> m.part() != Part.FILTER))
                .toList();
    }

    private Reading days(String plain, String said, int count) {
        List<Meaning> meanings = new ArrayList<>();
        String note = "";
        for (String id : wires.filtersOf(page)) {
            Filter filter = wires.filters().get(id);
            Column column = filter.column() == null
                    ? null
                    : scene.of(filter)
                            .flatMap(d -> d.table().find(filter.column()))
                            .orElse(null);
            if (column == null || !(column.type() == ColumnType.DATE || column.type() == ColumnType.TIME)) continue;
            // Months without a year are those of the rows, not of years that have none.
            LocalDate counted = column.extremes()
                    .map(Extremes::highest)
                    .map(row -> LocalDate.parse(column.text(row).substring(0, 10)))
                    .filter(newest -> newest.isBefore(scene.today()))
                    .orElse(scene.today());
            Optional<DayPhrases.Said> days = DayPhrases.read(plain, counted);
            if (days.isEmpty()) continue;
            Optional<Value> value =
                    kinds.of(filter).read(filter, days.get().value().text());
            if (value.isEmpty()) continue;
            meanings.add(
                    new Meaning(Part.FILTER, id, value.get(), kinds.of(filter).words(filter, value.get(), scene)));
            if (!days.get().guessed().isEmpty())
                note = phrase("taken as {0}", days.get().guessed());
        }
        return meanings.isEmpty() ? null : new Reading(count, said, note, meanings);
    }

    /** Words before a bound, and whether the bound itself is out. */
    private static final Map<String, Boolean> LEAST =
            Map.of("over", true, "above", true, "more than", true, "at least", false, "from", false);

    private static final Map<String, Boolean> MOST =
            Map.of("under", true, "below", true, "less than", true, "at most", false, "up to", false);

    /** "litres over 100" */
    private Reading bound(String plain, String said, int count) {
        for (String id : wires.filtersOf(page)) {
            Filter filter = wires.filters().get(id);
            String name = plain(filter.words());
            if (name.isEmpty() || !plain.startsWith(name + " ")) continue;
            String rest = TypedWords.english(plain.substring(name.length() + 1));
            for (boolean least : new boolean[] {true, false})
                for (Map.Entry<String, Boolean> word : (least ? LEAST : MOST).entrySet()) {
                    if (!rest.startsWith(word.getKey() + " ")) continue;
                    String number = rest.substring(word.getKey().length() + 1);
                    if (!number.matches("-?\\d+(\\.\\d+)?")) continue;
                    Optional<Bound> bound = bound(id, filter, new BigDecimal(number), least, word.getValue());
                    if (bound.isPresent())
                        return new Reading(count, said, bound.get().note, List.of(bound.get().meaning));
                }
        }
        return null;
    }

    private record Bound(Meaning meaning, String note) {}

    /**
     * A bound of a filter. Filters hold their bounds in; where a whole number has to be more than 5 it is at least 6, of
     * others it is said.
     *
     * @param out whether the bound itself is out
     */
    private Optional<Bound> bound(String id, Filter filter, BigDecimal number, boolean least, boolean out) {
        FilterKind<Filter> kind = kinds.of(filter);
        FilterOffer offer = FilterOffer.of(filter, scene, kinds);
        // A bound that the filter has on one side is none on the other.
        if (offer.misfit() != null || offer.said().get("most") instanceof Boolean most && most == least)
            return Optional.empty();
        boolean isNext = out && number.stripTrailingZeros().scale() <= 0 && isOfWholes(filter);
        BigDecimal kept = !isNext ? number : least ? number.add(BigDecimal.ONE) : number.subtract(BigDecimal.ONE);
        String text = kept.toPlainString();
        return kind.read(filter, least ? text + ".." : ".." + text)
                .filter(Value.Amounts.class::isInstance)
                .or(() -> kind.read(filter, text).filter(Value.Number.class::isInstance))
                .map(value -> new Bound(
                        new Meaning(Part.FILTER, id, value, kind.words(filter, value, scene)),
                        out && !isNext ? phrase("with {0} itself", NumberWords.full(number.doubleValue())) : ""));
    }

    private boolean isOfWholes(Filter filter) {
        return kinds.of(filter).isOfColumn(filter)
                && scene.of(filter)
                        .flatMap(dataset -> dataset.table().find(filter.column()))
                        .filter(column -> column.type() == ColumnType.WHOLE)
                        .isPresent();
    }

    /** With a slip or two forgiven, where only one value is as near. */
    private Reading nearly(String said, int count) {
        String plain = plain(said);
        if (plain.length() < 4 || BETWEEN.contains(plain)) return null;
        int most = plain.length() < 8 ? 1 : 2;
        String nearest = null;
        int least = most + 1;
        boolean alone = true;
        for (String known : index.keySet()) {
            if (Math.abs(known.length() - plain.length()) > most) continue;
            int slips = slips(plain, known, most);
            if (slips < least) {
                least = slips;
                nearest = known;
                alone = true;
            } else if (slips == least && slips <= most) alone = false;
        }
        if (nearest == null) return null;
        List<Meaning> meanings = new ArrayList<>(inOrder(index.get(nearest)));
        if (!alone)
            for (Map.Entry<String, List<Meaning>> other : index.entrySet())
                if (!other.getKey().equals(nearest)
                        && Math.abs(other.getKey().length() - plain.length()) <= most
                        && slips(plain, other.getKey(), most) == least) meanings.addAll(other.getValue());
        return new Reading(count, said, phrase("taken for “{0}”", nearest), meanings);
    }

    /** How many letters are wrong, missing or too many (Levenshtein 1966, with neighbours that have changed places). */
    static int slips(String one, String other, int most) {
        int[][] d = new int[one.length() + 1][other.length() + 1];
        for (int i = 0; i <= one.length(); i++) d[i][0] = i;
        for (int j = 0; j <= other.length(); j++) d[0][j] = j;
        for (int i = 1; i <= one.length(); i++) {
            int row = Integer.MAX_VALUE;
            for (int j = 1; j <= other.length(); j++) {
                int cost = one.charAt(i - 1) == other.charAt(j - 1) ? 0 : 1;
                d[i][j] = Math.min(Math.min(d[i - 1][j] + 1, d[i][j - 1] + 1), d[i - 1][j - 1] + cost);
                if (i > 1
                        && j > 1
                        && one.charAt(i - 1) == other.charAt(j - 2)
                        && one.charAt(i - 2) == other.charAt(j - 1)) d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
                row = Math.min(row, d[i][j]);
            }
            if (row > most) return most + 1;
        }
        return d[one.length()][other.length()];
    }
}
