package sarnik.app.dataset;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.SignedIn;
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.About;
import sarnik.dashboard.Tie;
import sarnik.format.TableFormat;
import sarnik.geo.Area;
import sarnik.geo.BoundarySet;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.table.RowOrder;
import sarnik.table.Table;

/** A dataset's page: its rows, columns, placing, what is told of it, how it is refreshed and where it is used. */
@Controller
class DatasetPages {

    private static final int ROWS_A_PAGE = 50;

    private final DatasetService datasets;
    private final FeedService feeds;
    private final BoundarySets boundaries;
    private final PageJson json;

    DatasetPages(DatasetService datasets, FeedService feeds, BoundarySets boundaries, PageJson json) {
        this.boundaries = boundaries;
        this.datasets = datasets;
        this.feeds = feeds;
        this.json = json;
    }

    @GetMapping("/datasets/{id}")
    String dataset(@PathVariable long id, Model model) {
        DatasetService.Loaded loaded = datasets.needed(id);
        Table table = loaded.dataset().table();
        model.addAttribute("dataset", loaded.dataset());
        model.addAttribute("version", datasets.version(id).orElseThrow());
        model.addAttribute("columns", shown(loaded).names().stream().map(n -> ColumnLine.of(table, n, n, Map.of())).toList());
        PlacingPreview placing = loaded.placed() == null ? null : PlacingPreview.of(loaded.placed());
        model.addAttribute("placing", placing);
        model.addAttribute("placedBy", loaded.placed() == null ? "" : loaded.dataset().placing().words());
        if (placing != null) model.addAttribute("pointsJson", json.of(placing.points()));
        model.addAttribute("versions", datasets.versions(id));
        model.addAttribute("about", loaded.dataset().about());
        model.addAttribute("feed", feeds.of(id));
        model.addAttribute("refreshes", feeds.refreshes(id));
        model.addAttribute("uses", datasets.usesOf(id));
        model.addAttribute("tied", datasets.tiedTo(id));
        model.addAttribute("calculations", datasets.calculations(id));
        model.addAttribute("calculationTroubles", loaded.troubles());
        model.addAttribute("emptyAreas", loaded.dataset().placing() instanceof Placing.ByArea area ? emptyAreas(loaded.placed(), boundaries.needed(area.set())) : null);
        model.addAttribute("tiesJson", json.of(loaded.dataset().ties()));
        model.addAttribute("tieTargetsJson", json.of(datasets.all().stream().filter(d -> d.id() != id).map(d -> new TieTarget(d.id(), d.name(), shown(datasets.needed(d.id())).names())).toList()));
        model.addAttribute("formats", TableFormat.values());
        return "dataset";
    }

    /** The other side of the match report: areas that no row lies in. */
    private static String emptyAreas(PlacedTable placed, BoundarySet set) {
        Set<String> codes = placed.places().values().stream().map(Place::areaCode).collect(Collectors.toSet());
        List<Area> empty = set.without(codes);
        if (empty.isEmpty()) return "Every area of %s has a row.".formatted(set.name());
        String names = empty.stream().limit(8).map(Area::name).collect(Collectors.joining(", "));
        return "%,d of %,d areas of %s have no row: %s%s.".formatted(empty.size(), set.areas().size(), set.name(), names, empty.size() > 8 ? ", …" : "");
    }

    /**
     * A page of a dataset's rows.
     *
     * @param found how many rows hold the words that were asked for
     * @param places what each row's place is called; empty texts where it has none, no list where the dataset has no place
     */
    record RowPage(int found, int page, int pages, List<List<String>> rows, List<String> places) {}

    @GetMapping("/api/datasets/{id}/rows")
    @ResponseBody
    RowPage rows(@PathVariable long id, @RequestParam(defaultValue = "0") int page, @RequestParam(defaultValue = "") String find,
            @RequestParam(defaultValue = "") String sort, @RequestParam(defaultValue = "false") boolean down) {
        DatasetService.Loaded loaded = datasets.needed(id);
        Table own = shown(loaded);
        int[] order;
        try {
            order = RowOrder.rows(own, find, sort, down);
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ".");
        }
        int pages = Math.max(1, (order.length + ROWS_A_PAGE - 1) / ROWS_A_PAGE);
        int at = Math.max(0, Math.min(page, pages - 1));
        int[] shown = Arrays.copyOfRange(order, at * ROWS_A_PAGE, Math.min(order.length, (at + 1) * ROWS_A_PAGE));
        List<List<String>> rows = BringInService.firstRows(own.pick(shown), ROWS_A_PAGE);
        List<String> places = null;
        if (loaded.placed() != null) {
            places = new ArrayList<>();
            for (int row : shown) {
                Place place = loaded.placed().match(row).place();
                places.add(place == null ? "" : place.name());
            }
        }
        return new RowPage(order.length, at, pages, rows, places);
    }

    /** A dataset to tie to. */
    record TieTarget(long id, String name, List<String> columns) {}

    /** The columns that people see: those that were brought in and those that are calculated. */
    private static Table shown(DatasetService.Loaded loaded) {
        Table table = loaded.dataset().table();
        return table.only(table.names().stream().filter(n -> !n.startsWith("@")).toList());
    }

    /** All rows in an open format, with longitude and latitude where they are placed. */
    @GetMapping("/datasets/{id}/rows.{format}")
    void take(@PathVariable long id, @PathVariable String format, HttpServletResponse answer) throws IOException {
        TableFormat wanted = Arrays.stream(TableFormat.values()).filter(f -> f.ending().equals(format)).findFirst()
                .orElseThrow(() -> new RefusedException(HttpStatus.NOT_FOUND, "Rows are not given out as “" + format + "”, but as csv, xlsx, geojson and gpkg."));
        DatasetService.Loaded loaded = datasets.needed(id);
        String name = loaded.dataset().name();
        answer.setContentType(wanted.mediaType());
        answer.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(name + "." + format, StandardCharsets.UTF_8).build().toString());
        wanted.write(shown(loaded), name, loaded.placed() == null ? null : loaded.placed()::position, answer.getOutputStream());
    }

    @PostMapping("/api/datasets/{id}/versions/{number}/serve")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void serve(@PathVariable long id, @PathVariable int number) {
        datasets.serve(id, number);
    }

    @PutMapping("/api/datasets/{id}/about")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void describe(@PathVariable long id, @RequestBody About about) {
        datasets.needed(id);
        datasets.describe(id, about);
    }

    /** How many rows a tie would bring together, in words. */
    record Partners(String words) {}

    @PostMapping("/api/datasets/{id}/ties/match")
    @ResponseBody
    Partners match(@PathVariable long id, @RequestBody Tie tie) {
        return new Partners(PlacingPreview.partners(datasets.match(id, tie)));
    }

    @PutMapping("/api/datasets/{id}/ties")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void tie(@PathVariable long id, @RequestBody List<Tie> ties) {
        datasets.needed(id);
        datasets.tie(id, ties);
    }

    /** The name of a dataset. */
    record Naming(String name) {}

    @PutMapping("/api/datasets/{id}/name")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void rename(@PathVariable long id, @RequestBody Naming naming) {
        datasets.needed(id);
        datasets.rename(id, naming.name());
    }

    @DeleteMapping("/api/datasets/{id}")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id) {
        datasets.remove(id);
    }

    /**
     * Where newer rows come from.
     *
     * @param address empty for nowhere
     * @param seconds how often it is asked by itself; null for on demand only
     */
    record Feeding(String address, Integer seconds, Boolean append) {}

    @PutMapping("/api/datasets/{id}/feed")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void feed(@PathVariable long id, @RequestBody Feeding feeding, @AuthenticationPrincipal SignedIn person) {
        feeds.set(id, feeding.address(), feeding.seconds(), Boolean.TRUE.equals(feeding.append()), person);
    }

    /** What came of asking a feed. */
    record Asked(String outcome, String words, Integer number) {}

    @PostMapping("/api/datasets/{id}/feed")
    @ResponseBody
    Asked ask(@PathVariable long id) {
        datasets.needed(id);
        DatasetRefresh refresh = feeds.ask(id);
        return new Asked(refresh.getOutcome().name(), refresh.getWords(), refresh.getNumber());
    }
}
