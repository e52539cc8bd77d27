package sarnik.app.dataset;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;
import sarnik.place.Match;
import sarnik.place.PlacedTable;
import sarnik.place.Words;

/** The placing sheet: the words that placing was not sure of, worked through one by one. */
@Controller
class PlacingPages {

    private static final int MOST_WORDS = 200;
    private static final int MOST_REASONS = 20;
    private static final int MOST_AT_ONCE = 5_000;

    private final DatasetService datasets;
    private final PlacingService decisions;
    private final PageJson json;

    PlacingPages(DatasetService datasets, PlacingService decisions, PageJson json) {
        this.datasets = datasets;
        this.decisions = decisions;
        this.json = json;
    }

    /**
     * Words to decide on, or decided.
     *
     * @param state doubtful, unplaced, or decided
     * @param taken the place taken; null where there is none
     * @param offers others that may be meant
     */
    record Open(
            Words words,
            String line,
            long rows,
            String state,
            double confidence,
            String reason,
            PlaceSearch.Offer taken,
            List<PlaceSearch.Offer> offers) {}

    /** Which words a sheet shows. */
    enum Show {
        /** Those that are doubtful, unplaced or decided. */
        OPEN,
        PLACED,
        ALL;

        boolean has(Match match, boolean decided) {
            return this == ALL || (this == PLACED) == (match.state() == Match.State.PLACED && !decided);
        }
    }

    /**
     * Why words are open, without what differs between them.
     *
     * @param sets how many sets of words it holds for
     */
    record Reason(String words, int sets, long rows) {}

    /**
     * What is asked for.
     *
     * @param reason only words that are open for this reason; null or empty for all
     */
    record Wanted(Integer page, Show show, String reason) {

        Show shown() {
            return show == null ? Show.OPEN : show;
        }

        boolean has(Match match, boolean decided) {
            return shown().has(match, decided)
                    && (reason == null || reason.isEmpty() || reason.equals(reasonOf(match)));
        }
    }

    /**
     * @param open a page of the words that are wanted, commonest first
     * @param found how many there are on all pages
     * @param reasons why words are where they are, the commonest first, of all that are shown
     * @param remarks what holds for many rows alike
     */
    record SheetOf(
            long placed,
            long doubtful,
            long unplaced,
            List<Open> open,
            int found,
            int page,
            int pages,
            Show show,
            List<Reason> reasons,
            List<String> remarks) {}

    @GetMapping("/datasets/{id}/placing")
    String sheet(@PathVariable long id, Model model) {
        model.addAttribute("dataset", datasets.needed(id).dataset());
        model.addAttribute("sheetJson", json.of(sheetOf(id, new Wanted(0, Show.OPEN, null))));
        return "placing";
    }

    /** A page of words. */
    @GetMapping("/api/datasets/{id}/decisions")
    @ResponseBody
    SheetOf page(@PathVariable long id, Wanted wanted) {
        return sheetOf(id, wanted);
    }

    private PlacedTable placed(long id) {
        Loaded loaded = datasets.needed(id);
        if (loaded.unfit() != null) throw new RefusedException(HttpStatus.UNPROCESSABLE_CONTENT, loaded.unfit());
        if (loaded.placed() == null) throw new RefusedException("The rows of this dataset have no place.");
        return loaded.placed();
    }

    private SheetOf sheetOf(long id, Wanted wanted) {
        PlacedTable placed = placed(id);
        var decided = decisions.of(id).places();
        List<Open> open = new ArrayList<>();
        Map<String, Reason> reasons = new HashMap<>();
        int found = 0;
        int page = wanted.page() == null ? 0 : Math.max(0, wanted.page());
        for (PlacedTable.Find find : placed.allFinds()) {
            boolean byHand = decided.containsKey(find.words());
            if (wanted.shown().has(find.match(), byHand))
                reasons.merge(
                        reasonOf(find.match()),
                        new Reason(reasonOf(find.match()), 1, find.rows()),
                        (x, y) -> new Reason(x.words(), x.sets() + 1, x.rows() + y.rows()));
            if (!wanted.has(find.match(), byHand)) continue;
            if (found >= page * MOST_WORDS && open.size() < MOST_WORDS) open.add(open(find, byHand));
            found++;
        }
        List<Reason> sorted = reasons.values().stream()
                .sorted(Comparator.comparingLong(Reason::rows).reversed().thenComparing(Reason::words))
                .limit(MOST_REASONS)
                .toList();
        return new SheetOf(
                placed.rows(Match.State.PLACED),
                placed.rows(Match.State.DOUBTFUL),
                placed.rows(Match.State.UNPLACED),
                open,
                found,
                page,
                Math.max(1, (found + MOST_WORDS - 1) / MOST_WORDS),
                wanted.shown(),
                sorted,
                placed.remarks());
    }

    /** A reason without the words and numbers that differ from row to row. */
    private static String reasonOf(Match match) {
        return match.reason()
                .replaceAll("“[^”]*”", "“…”")
                .replaceAll("another name of .+? fits", "another name fits")
                .replaceAll("Another name of .+? fits", "Another name fits")
                .replaceAll("\\d[\\d,.]*", "several");
    }

    private static Open open(PlacedTable.Find find, boolean byHand) {
        Match match = find.match();
        String line = find.words().line();
        String state = byHand ? "decided" : match.state().name().toLowerCase(Locale.ROOT);
        return new Open(
                find.words(),
                line.isEmpty() ? "(missing)" : line,
                find.rows(),
                state,
                match.confidence(),
                match.reason(),
                match.place() == null ? null : PlaceSearch.Offer.of(match.place()),
                match.runnersUp().stream().map(PlaceSearch.Offer::of).toList());
    }

    /**
     * A decision.
     *
     * @param words what it is on; null where it is on several
     * @param several what it is on; null where it is on one, or on all
     * @param all whether it is on all that are wanted
     * @param place a place's id; null leaves the rows out
     * @param taken whether each takes the place that it was taken for, whatever {@code place} says
     * @param back true takes an earlier decision back
     * @param shared whether it holds for other datasets too
     */
    record Decide(
            Words words, List<Words> several, Boolean all, String place, Boolean taken, Boolean back, Boolean shared) {

        /** What is not said does not hold. */
        Decide {
            all = Boolean.TRUE.equals(all);
            taken = Boolean.TRUE.equals(taken);
            back = Boolean.TRUE.equals(back);
            shared = Boolean.TRUE.equals(shared);
        }
    }

    @PostMapping("/api/datasets/{id}/decisions")
    @ResponseBody
    SheetOf decide(
            @PathVariable long id,
            Wanted wanted,
            @RequestBody Decide decide,
            @AuthenticationPrincipal SignedIn person) {
        datasets.check(id, May.COMPOSE, person);
        Map<Words, Match> on = meant(id, wanted, decide);
        if (on.size() > MOST_AT_ONCE)
            throw new RefusedException(
                    "%,d sets of words are meant, and at most %,d are decided on at once. Choose one reason first."
                            .formatted(on.size(), MOST_AT_ONCE));
        if (decide.back()) {
            decisions.forget(id, on.keySet(), decide.shared());
        } else {
            Map<Words, String> places = new LinkedHashMap<>();
            on.forEach((words, match) -> {
                if (!decide.taken()) places.put(words, decide.place());
                else if (match.place() != null) places.put(words, match.place().id());
            });
            if (places.isEmpty())
                throw new RefusedException(
                        "None of these is taken for a place. Choose one for them, or leave their rows out.");
            decisions.decide(id, places, decide.shared(), person);
        }
        return sheetOf(id, wanted);
    }

    /** The words that a decision is on, with what was found for them. */
    private Map<Words, Match> meant(long id, Wanted wanted, Decide decide) {
        List<Words> named = decide.words() != null
                ? List.of(decide.words())
                : decide.several() == null
                        ? List.of()
                        : decide.several().stream().filter(Objects::nonNull).toList();
        if (named.isEmpty() && !decide.all()) throw new RefusedException("Say which words are decided on.");
        Map<Words, Match> meant = new LinkedHashMap<>();
        Set<Words> asked = new HashSet<>(named);
        var decided = decisions.of(id).places();
        for (PlacedTable.Find find : placed(id).allFinds()) {
            boolean byHand = decided.containsKey(find.words());
            if (decide.all() ? !byHand && wanted.has(find.match(), false) : asked.contains(find.words()))
                meant.put(find.words(), find.match());
        }
        // Words that no row has any more can still be decided on, and taken back.
        if (!decide.all())
            named.forEach(words -> meant.putIfAbsent(words, new Match(null, Match.State.UNPLACED, 0, "", List.of())));
        return meant;
    }

    /** Places of a name; see {@link PlaceSearch}. */
    @GetMapping("/api/places")
    @ResponseBody
    List<PlaceSearch.Offer> search(@RequestParam String name, @RequestParam(required = false) List<Double> view) {
        return PlaceSearch.of(name, view);
    }
}
