package sarnik.app.dataset;

import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.app.rights.Who;
import sarnik.app.uses.Uses;
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;
import sarnik.app.web.Revisions;
import sarnik.app.work.AnswerQueue;
import sarnik.app.work.Jobs;
import sarnik.data.About;
import sarnik.data.Telling;
import sarnik.format.TableFormat;
import sarnik.geo.Area;
import sarnik.geo.BoundarySet;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.RowQuery;
import sarnik.sql.SqlEngine;
import sarnik.sql.StayingRows;
import sarnik.table.RowOrder;
import sarnik.table.Table;

/** A dataset's page: its rows, columns, placing, what is told of it, how it is refreshed and where it is used. */
@Controller
class DatasetPages {

    private static final int ROWS_A_PAGE = 50;

    /** Rows that stay elsewhere and are fetched to be given out. */
    private static final int MOST_TAKEN = 1_000_000;

    /** How long the page waits for rows that are on their way before it stands without them. */
    private static final Duration PATIENCE = Duration.ofMillis(1500);

    private final DatasetService datasets;
    private final DatasetEdits edits;
    private final RowKeeper keeper;
    private final FeedService feeds;
    private final StayingKeeper staying;
    private final BoundarySets boundaries;
    private final PeopleService people;
    private final Rights rights;
    private final Uses uses;
    private final AnswerQueue queue;
    private final Jobs jobs;
    private final PageJson json;

    DatasetPages(
            DatasetService datasets,
            DatasetEdits edits,
            RowKeeper keeper,
            FeedService feeds,
            StayingKeeper staying,
            BoundarySets boundaries,
            PeopleService people,
            Rights rights,
            Uses uses,
            AnswerQueue queue,
            Jobs jobs,
            PageJson json) {
        this.boundaries = boundaries;
        this.people = people;
        this.rights = rights;
        this.uses = uses;
        this.queue = queue;
        this.jobs = jobs;
        this.datasets = datasets;
        this.edits = edits;
        this.keeper = keeper;
        this.feeds = feeds;
        this.staying = staying;
        this.json = json;
    }

    @GetMapping("/datasets/{id}")
    String dataset(@PathVariable long id, @AuthenticationPrincipal SignedIn person, Model model) {
        Description said = datasets.description(id).orElseThrow(() -> RefusedException.gone("dataset"));
        model.addAttribute("dataset", said);
        model.addAttribute("version", said.served());
        model.addAttribute("placedBy", said.isPlaced() ? said.placing().words() : "");
        model.addAttribute("versions", datasets.versions(id));
        model.addAttribute("staysIn", said.isStaying() ? staying.where(said.stays()) : null);
        model.addAttribute("stays", said.stays());
        model.addAttribute("about", said.about());
        model.addAttribute("feed", said.feed());
        model.addAttribute("refreshes", feeds.refreshes(id));
        model.addAttribute("uses", uses.ofDataset(id));
        model.addAttribute("calculations", said.calculations());
        model.addAttribute("owner", people.nameOf(said.owner()));
        model.addAttribute("told", datasets.seenBy(person).told(List.of(id)));
        model.addAttribute(
                "viewers", people.all().stream().filter(p -> !p.isClosed()).toList());
        model.addAttribute("mayChange", rights.may(person, said.owned(), May.COMPOSE));
        model.addAttribute("mayShare", rights.may(person, said.owned(), May.HAND_ON));
        model.addAttribute("shared", rights.isGiven(Thing.DATASET, id, Who.ANALYSTS, May.COMPOSE));
        model.addAttribute("tiesJson", json.of(said.ties()));
        model.addAttribute(
                "tieTargetsJson",
                json.of(datasets.descriptions(person).stream()
                        .filter(d -> d.id() != id)
                        .map(d -> new TieTarget(d.id(), d.name(), d.columnNames()))
                        .toList()));
        model.addAttribute("formats", TableFormat.values());
        Optional<Loaded> loaded = datasets.loadedSoon(id, PATIENCE, datasets.seenBy(person));
        model.addAttribute("ready", loaded.isPresent());
        loaded.ifPresent(l -> rows(l, said, model));
        return "dataset";
    }

    /** What of the page needs the rows: while they are on their way it stands without. */
    private void rows(Loaded loaded, Description said, Model model) {
        Table table = loaded.shown();
        Set<String> open = StayingRows.of(table)
                .map(rows -> Set.copyOf(rows.face().open()))
                .orElse(Set.of());
        model.addAttribute(
                "columns",
                table.names().stream()
                        .map(n -> table.staying() == null
                                ? ColumnLine.of(table, n)
                                : ColumnLine.ofFace(table, n, open.contains(n)))
                        .toList());
        Map<String, Telling.Meaning> likely = new LinkedHashMap<>();
        for (String name : table.names())
            if (table.column(name).type().isNumber()) likely.put(name, Telling.likely(loaded.dataset(), name));
        model.addAttribute("likely", likely);
        model.addAttribute("meanings", Telling.Meaning.values());
        model.addAttribute("unfit", loaded.unfit());
        model.addAttribute("placing", loaded.placed() == null ? null : PlacingPreview.of(loaded.placed()));
        model.addAttribute("calculationTroubles", loaded.troubles());
        boolean byArea = loaded.placed() != null && said.placing() instanceof Placing.ByArea;
        model.addAttribute(
                "emptyAreas",
                byArea
                        ? boundaries
                                .find(((Placing.ByArea) said.placing()).set())
                                .map(set -> emptyAreas(loaded.placed(), set))
                                .orElse(null)
                        : null);
    }

    /** The datasets that this person may read, the newest first. */
    @GetMapping("/api/datasets")
    @ResponseBody
    List<DatasetService.Listed> all(@AuthenticationPrincipal SignedIn person) {
        return datasets.all(person);
    }

    /** Whether the rows of a dataset are in memory, so that its page can be looked at again. */
    @GetMapping("/api/datasets/{id}")
    @ResponseBody
    ResponseEntity<Standing> standing(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        Description said = datasets.description(id).orElseThrow(() -> RefusedException.gone("dataset"));
        boolean ready =
                datasets.loadedSoon(id, PATIENCE, datasets.seenBy(person)).isPresent();
        return ResponseEntity.ok()
                .eTag(Revisions.tag(said.revision()))
                .body(new Standing(
                        id,
                        said.name(),
                        said.revision(),
                        said.served().number(),
                        said.served().rows(),
                        ready));
    }

    /**
     * Where a dataset stands.
     *
     * @param revision of what is said about it; also the ETag
     * @param version the number of the version that is served
     * @param ready whether its rows are in memory
     */
    record Standing(long id, String name, long revision, int version, long rows, boolean ready) {}

    /** What placing found, with its places gathered for a map. */
    @GetMapping("/api/datasets/{id}/placing")
    @ResponseBody
    PlacingPreview placing(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        Loaded loaded = datasets.needed(id, person);
        if (loaded.placed() == null)
            throw new RefusedException(
                    loaded.unfit() == null ? "The rows of this dataset have no place." : loaded.unfit());
        return PlacingPreview.of(loaded.placed());
    }

    /** The other side of the match report: areas that no row lies in. */
    private static String emptyAreas(PlacedTable placed, BoundarySet set) {
        Set<String> codes =
                placed.places().values().stream().map(Place::areaCode).collect(Collectors.toSet());
        List<Area> empty = set.without(codes);
        if (empty.isEmpty()) return "Every area of %s has a row.".formatted(set.name());
        String names = empty.stream().limit(8).map(Area::name).collect(Collectors.joining(", "));
        return "%,d of %,d areas of %s have no row: %s%s."
                .formatted(empty.size(), set.areas().size(), set.name(), names, empty.size() > 8 ? ", …" : "");
    }

    /**
     * A page of a dataset's rows.
     *
     * @param found how many rows hold the words that were asked for
     * @param places what each row's place is called; empty texts where it has none, no list where the dataset has no
     *     place
     */
    record RowPage(int found, int page, int pages, List<List<String>> rows, List<String> places) {}

    @GetMapping("/api/datasets/{id}/rows")
    @ResponseBody
    DeferredResult<RowPage> page(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") int page,
            @RequestParam(defaultValue = "") String find,
            @RequestParam(defaultValue = "") String sort,
            @RequestParam(defaultValue = "false") boolean down,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        return queue.answer(
                AnswerQueue.Asker.of(request),
                datasets.seenBy(person).prepare(List.of(id)),
                ticket -> rows(datasets.needed(id, person), page, find, sort, down));
    }

    private static RowPage rows(Loaded loaded, int page, String find, String sort, boolean down) {
        Table own = loaded.shown();
        if (own.staying() != null) return staying(loaded, own, page, find, sort, down);
        int[] order;
        try {
            order = RowOrder.rows(own, find, sort, down);
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ".");
        }
        int pages = Math.max(1, (order.length + ROWS_A_PAGE - 1) / ROWS_A_PAGE);
        int at = Math.max(0, Math.min(page, pages - 1));
        int[] shown = Arrays.copyOfRange(order, at * ROWS_A_PAGE, Math.min(order.length, (at + 1) * ROWS_A_PAGE));
        List<List<String>> rows = ShownRows.first(own.pick(shown), ROWS_A_PAGE);
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

    /** A page of rows that stay elsewhere, asked there. */
    private static RowPage staying(Loaded loaded, Table own, int page, String find, String sort, boolean down) {
        List<String> columns = new ArrayList<>(own.names());
        boolean placed = loaded.placed() != null;
        if (placed) columns.add(PlacedTable.PLACE);
        List<RowQuery.By> order = sort.isEmpty() ? List.of() : List.of(new RowQuery.By(sort, down));
        int at = Math.max(0, Math.min(page, RowQuery.MOST / ROWS_A_PAGE - 1));
        try {
            sarnik.query.RowPage found = new SqlEngine()
                    .rows(
                            loaded.dataset().table(),
                            new RowQuery(List.of(), columns, order, find, at * ROWS_A_PAGE, ROWS_A_PAGE));
            int pages = Math.max(1, (found.all() + ROWS_A_PAGE - 1) / ROWS_A_PAGE);
            List<List<String>> rows = found.cells().stream()
                    .map(cells -> Arrays.stream(cells)
                            .limit(own.names().size())
                            .map(cell -> cell == null ? "" : cell)
                            .toList())
                    .toList();
            List<String> places = !placed
                    ? null
                    : found.cells().stream()
                            .map(cells -> Optional.ofNullable(cells[own.names().size()])
                                    .map(loaded.dataset().places()::get)
                                    .map(Place::name)
                                    .orElse(""))
                            .toList();
            return new RowPage(found.all(), at, pages, rows, places);
        } catch (QueryException cannot) {
            throw new RefusedException(cannot.getMessage());
        }
    }

    /** A dataset to tie to. */
    record TieTarget(long id, String name, List<String> columns) {}

    /** All rows in an open format, with longitude and latitude where they are placed. */
    @GetMapping("/datasets/{id}/rows.{format}")
    void take(
            @PathVariable long id,
            @PathVariable String format,
            @AuthenticationPrincipal SignedIn person,
            HttpServletResponse answer)
            throws IOException {
        TableFormat wanted = Arrays.stream(TableFormat.values())
                .filter(f -> f.ending().equals(format))
                .findFirst()
                .orElseThrow(() -> new RefusedException(
                        HttpStatus.NOT_FOUND,
                        "Rows are not given out as “" + format
                                + "”, but as csv, spreadsheet.csv, xlsx, geojson, gpkg and parquet."));
        Loaded loaded = datasets.needed(id, person);
        Table table = loaded.shown();
        IntFunction<double[]> position = loaded.placed() == null ? null : loaded.placed()::position;
        if (table.staying() != null) {
            Table taken = taken(loaded, table);
            position = loaded.placed() == null ? null : row -> positionOf(loaded, taken, row);
            table = taken.only(table.names());
        }
        wanted.check(table);
        String name = loaded.dataset().name();
        answer.setContentType(wanted.mediaType());
        answer.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename(name + "." + format, StandardCharsets.UTF_8)
                        .build()
                        .toString());
        wanted.write(table, name, position, answer.getOutputStream());
    }

    /** Rows that stay elsewhere, fetched to be given out. */
    private static Table taken(Loaded loaded, Table shown) {
        List<String> columns = new ArrayList<>(shown.names());
        if (loaded.placed() != null) columns.add(PlacedTable.PLACE);
        try {
            QueryEngine.Taken taken = new SqlEngine().taken(loaded.dataset().table(), List.of(), columns, MOST_TAKEN);
            if (taken.rows() == null)
                throw new RefusedException(
                        "%,d rows stay in %s, and at most %,d are fetched to be given out. Ask the database for them itself."
                                .formatted(taken.all(), shown.staying().where(), MOST_TAKEN));
            return taken.rows();
        } catch (QueryException cannot) {
            throw new RefusedException(cannot.getMessage());
        }
    }

    private static double[] positionOf(Loaded loaded, Table taken, int row) {
        Place place =
                loaded.dataset().places().get(taken.column(PlacedTable.PLACE).text(row));
        return place == null ? null : new double[] {place.lon(), place.lat()};
    }

    @PostMapping("/api/datasets/{id}/versions/{number}/serve")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void serve(@PathVariable long id, @PathVariable int number, @AuthenticationPrincipal SignedIn person) {
        keeper.serve(id, number, person);
    }

    @PutMapping("/api/datasets/{id}/about")
    @ResponseBody
    ResponseEntity<Void> describe(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody About about,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(edits.describe(id, Revisions.of(ifMatch), about, person));
    }

    /** The name of a dataset. */
    record Naming(String name) {}

    @PutMapping("/api/datasets/{id}/name")
    @ResponseBody
    ResponseEntity<Void> rename(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody Naming naming,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(edits.rename(id, Revisions.of(ifMatch), naming.name(), person));
    }

    /** Whether other authors may change it. */
    @PutMapping("/api/datasets/{id}/shared")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void share(@PathVariable long id, @RequestBody boolean shared, @AuthenticationPrincipal SignedIn person) {
        datasets.check(id, May.HAND_ON, person);
        rights.give(Thing.DATASET, id, Who.ANALYSTS, shared ? May.COMPOSE : May.READ);
    }

    @DeleteMapping("/api/datasets/{id}")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        edits.remove(id, person);
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
    ResponseEntity<Void> feed(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody Feeding feeding,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(feeds.set(
                id,
                Revisions.of(ifMatch),
                feeding.address(),
                feeding.seconds(),
                Boolean.TRUE.equals(feeding.append()),
                person));
    }

    /**
     * For how long an answer holds of rows that stay elsewhere.
     *
     * @param seconds 0 for not at all
     */
    record KeptAnswers(int seconds) {}

    @PutMapping("/api/datasets/{id}/kept-answers")
    @ResponseBody
    ResponseEntity<Void> keepAnswers(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody KeptAnswers kept,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(staying.keeping(id, Revisions.of(ifMatch), kept.seconds(), person));
    }

    /** What came of asking a feed. */
    record Asked(String outcome, String words, Integer number) {}

    @ApiResponse(responseCode = "200", content = @Content(schema = @Schema(implementation = Asked.class)))
    @PostMapping("/api/datasets/{id}/feed")
    @ResponseBody
    ResponseEntity<Object> ask(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        datasets.check(id, May.COMPOSE, person);
        return jobs.begin(person, "Asking for newer rows", progress -> {
            DatasetRefresh refresh = feeds.ask(id, progress);
            return new Asked(refresh.getOutcome().name(), refresh.getWords(), refresh.getNumber());
        });
    }
}
