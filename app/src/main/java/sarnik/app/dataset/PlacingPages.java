package sarnik.app.dataset;

import java.util.ArrayList;
import java.util.List;
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
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Words;

/** The placing sheet: the words that placing was not sure of, worked through one by one. */
@Controller
class PlacingPages {

    private static final int MOST_WORDS = 200;
    private static final int MOST_FOUND = 9;

    private final DatasetService datasets;
    private final PlacingService decisions;
    private final PageJson json;

    PlacingPages(DatasetService datasets, PlacingService decisions, PageJson json) {
        this.datasets = datasets;
        this.decisions = decisions;
        this.json = json;
    }

    /** A place that may be meant. */
    record Offer(String id, String words, double lon, double lat) {

        static Offer of(Place place) {
            return new Offer(place.id(), PlacingPreview.called(place), place.lon(), place.lat());
        }
    }

    /**
     * Words to decide on, or decided.
     *
     * @param state doubtful, unplaced, or decided
     * @param taken the place taken; null where there is none
     * @param offers others that may be meant
     */
    record Open(Words words, String line, long rows, String state, double confidence, String reason, Offer taken, List<Offer> offers) {}

    /**
     * @param open a page of the words that are open or decided, commonest first
     * @param found how many there are on all pages
     */
    record SheetOf(long placed, long doubtful, long unplaced, List<Open> open, int found, int page, int pages) {}

    @GetMapping("/datasets/{id}/placing")
    String sheet(@PathVariable long id, Model model) {
        model.addAttribute("dataset", datasets.needed(id).dataset());
        model.addAttribute("sheetJson", json.of(sheetOf(id, 0)));
        return "placing";
    }

    /** A page of the words that are open or decided. */
    @GetMapping("/api/datasets/{id}/decisions")
    @ResponseBody
    SheetOf page(@PathVariable long id, @RequestParam(defaultValue = "0") int page) {
        return sheetOf(id, page);
    }

    private SheetOf sheetOf(long id, int page) {
        Loaded loaded = datasets.needed(id);
        if (loaded.unfit() != null) throw new RefusedException(HttpStatus.UNPROCESSABLE_CONTENT, loaded.unfit());
        PlacedTable placed = loaded.placed();
        if (placed == null) throw new RefusedException("The rows of this dataset have no place.");
        var decided = decisions.of(id).places();
        List<Open> open = new ArrayList<>();
        int found = 0;
        int from = Math.max(0, page) * MOST_WORDS;
        for (PlacedTable.Find find : placed.allFinds()) {
            boolean byHand = decided.containsKey(find.words());
            if (find.match().state() == Match.State.PLACED && !byHand) continue;
            if (found >= from && open.size() < MOST_WORDS) open.add(open(find, byHand));
            found++;
        }
        return new SheetOf(placed.rows(Match.State.PLACED), placed.rows(Match.State.DOUBTFUL), placed.rows(Match.State.UNPLACED), open, found, Math.max(0, page), Math.max(1, (found + MOST_WORDS - 1) / MOST_WORDS));
    }

    private static Open open(PlacedTable.Find find, boolean byHand) {
        Match match = find.match();
        String line = find.words().line();
        String state = byHand ? "decided" : match.state() == Match.State.DOUBTFUL ? "doubtful" : "unplaced";
        return new Open(find.words(), line.isEmpty() ? "(missing)" : line, find.rows(), state, match.confidence(), match.reason(),
                match.place() == null ? null : Offer.of(match.place()), match.runnersUp().stream().map(Offer::of).toList());
    }

    /**
     * A decision.
     *
     * @param place a place's id; null leaves the rows out
     * @param back true takes an earlier decision back
     * @param shared whether it holds for other datasets too
     */
    record Decide(Words words, String place, boolean back, Boolean shared) {}

    @PostMapping("/api/datasets/{id}/decisions")
    @ResponseBody
    SheetOf decide(@PathVariable long id, @RequestParam(required = false) Integer page, @RequestBody Decide decide, @AuthenticationPrincipal SignedIn person) {
        if (decide.words() == null) throw new RefusedException("Say which words are decided on.");
        datasets.checkMayChange(id, person);
        boolean shared = Boolean.TRUE.equals(decide.shared());
        if (decide.back()) decisions.forget(id, decide.words(), shared);
        else decisions.decide(id, decide.words(), decide.place(), shared, person);
        return sheetOf(id, page == null ? 0 : page);
    }

    @GetMapping("/api/places")
    @ResponseBody
    List<Offer> search(@RequestParam String name) {
        return Gazetteer.shipped().search(name, MOST_FOUND).stream().map(Offer::of).toList();
    }
}
