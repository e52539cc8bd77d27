package sarnik.app.dataset;

import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.util.UriUtils;
import sarnik.app.SarnikProperties;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.people.SignedIn;
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Jobs;
import sarnik.geo.BoundaryCheck;
import sarnik.geo.Projection;
import sarnik.place.Placing;
import sarnik.table.CodedColumn;
import sarnik.table.ColumnType;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.ValueMatch;

/** Bringing a table in: choose a file, look at its rows, say how it is placed, keep it. */
@Controller
class BringInPages {

    /** A coordinate system that is offered by name; any other of the EPSG register can be written. */
    public record CoordinateSystem(int code, String words) {}

    private static final List<CoordinateSystem> SYSTEMS = List.of(
            new CoordinateSystem(25829, "ETRS89, UTM zone 29 N"),
            new CoordinateSystem(25830, "ETRS89, UTM zone 30 N"),
            new CoordinateSystem(25831, "ETRS89, UTM zone 31 N"),
            new CoordinateSystem(25828, "ETRS89, UTM zone 28 N"),
            new CoordinateSystem(3763, "Portugal TM06"),
            new CoordinateSystem(3035, "Europe, equal area"),
            new CoordinateSystem(3857, "Web Mercator"),
            new CoordinateSystem(23030, "ED50, UTM zone 30 N"));
    /** The ways in which an end may be placed, and how the sentence says them. */
    private static final List<Map.Entry<String, String>> END_WAYS = List.of(
            Map.entry("words", "the words in"),
            Map.entry("code", "the code in"),
            Map.entry("coordinates", "the coordinates in"),
            Map.entry("area", "the area in"),
            Map.entry("tie", "the key in"));

    private static final int SHOWN_ROWS = 12;
    private static final int SHOWN_TROUBLES = 100;

    /** How long an answer waits for the reading to end before it says how far it has come. */
    private static final Duration PATIENCE = Duration.ofMillis(800);

    private final BringInService bringIns;
    private final WaitingRoom room;
    private final DatasetService datasets;
    private final KeyColumns keyColumns;
    private final BoundarySets boundaries;
    private final SarnikProperties properties;
    private final Jobs jobs;
    private final PageJson json;

    BringInPages(
            BringInService bringIns,
            WaitingRoom room,
            DatasetService datasets,
            KeyColumns keyColumns,
            BoundarySets boundaries,
            SarnikProperties properties,
            Jobs jobs,
            PageJson json) {
        this.jobs = jobs;
        this.boundaries = boundaries;
        this.json = json;
        this.bringIns = bringIns;
        this.room = room;
        this.datasets = datasets;
        this.keyColumns = keyColumns;
        this.properties = properties;
    }

    @GetMapping("/bring")
    String choose(@AuthenticationPrincipal SignedIn person, Model model) {
        model.addAttribute("waiting", room.of(person));
        model.addAttribute("mostWaiting", properties.mostWaiting());
        model.addAttribute("largest", properties.largestFile().toMegabytes());
        return "bring";
    }

    @GetMapping("/bring/{id}")
    String look(@PathVariable String id, @AuthenticationPrincipal SignedIn person, Model model) {
        BringIn bringIn = room.get(id, person);
        Table table = bringIn.reading().table();
        model.addAttribute("file", bringIn);
        model.addAttribute("fileName", bringIn.fileName());
        model.addAttribute("troubles", bringIn.reading().troubles());
        model.addAttribute(
                "shownTroubles",
                bringIn.reading().troubles().first().stream()
                        .limit(SHOWN_TROUBLES)
                        .toList());
        ask(bringIn, model);
        if (bringIn.refreshes() != null) return compare(bringIn, model);
        model.addAttribute("name", bringIn.name());
        model.addAttribute("form", bringIn.reading().form());
        model.addAttribute("intakeJson", json.of(bringIn.intake()));
        model.addAttribute("sheets", bringIn.sheets());
        model.addAttribute("systems", SYSTEMS);
        Placing.FromTo between = bringIn.guess() instanceof Placing.FromTo f ? f : new Placing.FromTo(null, null);
        model.addAttribute(
                "ends", List.of(End.of("from", "origins", between.from()), End.of("to", "destinations", between.to())));
        model.addAttribute("endWays", END_WAYS);
        model.addAttribute(
                "wordColumn",
                bringIn.guess() instanceof Placing.ByWords w
                        ? w.column()
                        : bringIn.guess() instanceof Placing.ByCode c ? c.column() : "");
        model.addAttribute("asks", bringIn.asks());
        model.addAttribute(
                "alikeJson",
                json.of(
                        bringIn.guess() instanceof Placing.ByCoordinates c && c.alike() != null
                                ? systems(c)
                                : List.of()));
        model.addAttribute("areas", bringIn.areas());
        model.addAttribute("sets", boundaries.names());
        model.addAttribute("byArea", bringIn.guess() instanceof Placing.ByArea a ? a : new Placing.ByArea("", ""));
        model.addAttribute("kind", bringIn.kind());
        Shaping.Turn turn = bringIn.intake().shaping().turn();
        model.addAttribute("turn", turn);
        model.addAttribute("withoutYear", turn != null && turn.isWithoutYear());
        model.addAttribute("periodsJson", json.of(bringIn.reading().periods()));
        model.addAttribute(
                "dropped",
                bringIn.reading().columns().stream()
                        .filter(bringIn.intake().shaping().dropped()::contains)
                        .toList());
        model.addAttribute("rowCount", bringIn.reading().parts().rows());
        model.addAttribute("held", bringIn.reading().parts().areHeld());
        model.addAttribute("outgrown", bringIns.outgrows(bringIn));
        model.addAttribute("shownOf", table.rows());
        model.addAttribute(
                "columns",
                table.names().stream()
                        .map(n -> ColumnLine.of(
                                bringIn.reading(), n, bringIn.intake().shaping().types()))
                        .toList());
        model.addAttribute("types", ColumnType.values());
        model.addAttribute("rows", ShownRows.first(table, SHOWN_ROWS));
        model.addAttribute(
                "textColumns",
                table.names().stream()
                        .filter(n -> table.column(n) instanceof CodedColumn
                                || table.column(n).type() == ColumnType.WHOLE)
                        .toList());
        model.addAttribute("ties", ties(person));
        model.addAttribute("way", wayOf(bringIn.guess()));
        model.addAttribute(
                "byName", bringIn.guess() instanceof Placing.ByName n ? n : new Placing.ByName(null, null, null));
        model.addAttribute(
                "byCoordinates",
                bringIn.guess() instanceof Placing.ByCoordinates c ? c : new Placing.ByCoordinates(null, null));
        model.addAttribute("allColumns", table.names());
        model.addAttribute("byTie", bringIn.guess() instanceof Placing.ByTie t ? t : new Placing.ByTie("", -1, ""));
        return "look";
    }

    /** What was found in the rows of a file that may be meant in another way than they stand. */
    private void ask(BringIn bringIn, Model model) {
        RowQuestions asked = RowQuestions.of(bringIn);
        model.addAttribute("asked", asked);
        model.addAttribute("repeatedJson", json.of(asked.repeated()));
        model.addAttribute("downsJson", json.of(asked.downs()));
        model.addAttribute("oncesJson", json.of(asked.onces()));
        model.addAttribute("staysIn", bringIn.stays() == null ? null : bringIns.where(bringIn.stays()));
        model.addAttribute("days", bringIn.days());
        model.addAttribute("reading", bringIn.reading());
        model.addAttribute("sums", bringIn.reading().sums());
        model.addAttribute(
                "missingOffer", json.of(bringIn.reading().missingWords().keySet()));
    }

    /** Newer rows of a dataset beside those it serves. */
    private String compare(BringIn bringIn, Model model) {
        model.addAttribute(
                "dataset",
                datasets.description(bringIn.refreshes()).orElseThrow(() -> RefusedException.gone("dataset")));
        model.addAttribute("comparison", bringIn.comparison());
        model.addAttribute("diff", bringIn.comparison().diff());
        model.addAttribute("after", bringIn.reading().parts().rows());
        model.addAttribute("held", bringIn.reading().parts().areHeld());
        model.addAttribute("shownOf", bringIn.reading().table().rows());
        model.addAttribute("intakeJson", json.of(bringIn.intake()));
        model.addAttribute("sourcesJson", json.of(bringIn.reading().source()));
        return "newer";
    }

    /** The system that was guessed and those that fit as well. */
    private static List<CoordinateSystem> systems(Placing.ByCoordinates guess) {
        return Stream.concat(Stream.of(guess.epsg()), guess.alike().stream())
                .flatMap(code -> Projection.ofEpsg(code).map(p -> new CoordinateSystem(code, p.words())).stream())
                .toList();
    }

    /**
     * Where a row comes from, or where it goes, as the sentence on the look page says it; parts that its way has not
     * are empty.
     *
     * @param end from or to
     * @param called what such places are called
     */
    public record End(
            String end, String called, String way, String column, String lon, String set, long dataset, String equals) {

        static End of(String end, String called, Placing placing) {
            if (placing instanceof Placing.ByCode c) return new End(end, called, "code", c.column(), "", "", -1, "");
            if (placing instanceof Placing.ByCoordinates c)
                return new End(end, called, "coordinates", c.lat(), c.lon(), "", -1, "");
            if (placing instanceof Placing.ByArea a)
                return new End(end, called, "area", a.column(), "", a.set(), -1, "");
            if (placing instanceof Placing.ByTie t)
                return new End(end, called, "tie", t.column(), "", "", t.dataset(), t.equals());
            return new End(
                    end, called, "words", placing instanceof Placing.ByWords w ? w.column() : "", "", "", -1, "");
        }
    }

    private static String wayOf(Placing guess) {
        if (guess == null) return "none";
        if (guess instanceof Placing.ByTie) return "tie";
        if (guess instanceof Placing.ByArea) return "area";
        if (guess instanceof Placing.FromTo) return "from-to";
        if (guess instanceof Placing.ByCoordinates) return "coordinates";
        if (guess instanceof Placing.ByWords) return "words";
        if (guess instanceof Placing.ByCode) return "code";
        return "name";
    }

    /** A column of a placed dataset whose values are unique, to tie to. */
    public record TieTarget(long dataset, String column, String words) {}

    private List<TieTarget> ties(SignedIn person) {
        return keyColumns.keys(person).stream()
                .map(k -> new TieTarget(
                        k.dataset().id(),
                        k.column(),
                        k.column() + " in " + k.dataset().name()))
                .toList();
    }

    /**
     * Where to go on.
     *
     * @param working whether the files are still being read: ask again
     * @param rows rows gone through so far
     * @param all how many there are; 0 as long as that is not known
     * @param words what is being done
     * @param guess how the rows might be placed; null when nothing fits
     */
    record Taken(String id, String address, boolean working, String words, long rows, long all, Placing guess) {

        static Taken of(WaitingRoom.State state) {
            BringIn read = state.bringIn();
            return new Taken(
                    state.id(),
                    "/bring/" + state.id(),
                    read == null,
                    state.words(),
                    state.rows(),
                    state.all(),
                    read == null ? null : read.guess());
        }

        static Taken at(String id, String address) {
            return new Taken(id, address, false, "", 0, 0, null);
        }
    }

    @PostMapping("/api/bring")
    @ResponseBody
    @ResponseStatus(HttpStatus.CREATED)
    Taken take(
            @RequestParam List<MultipartFile> file,
            @RequestParam(required = false) Long dataset,
            @AuthenticationPrincipal SignedIn person) {
        return Taken.of(room.state(bringIns.take(file, dataset, person), person, PATIENCE));
    }

    /**
     * @param address of a table, or of a collection of OGC API – Features
     */
    public record AskedTable(String address) {}

    @PostMapping("/api/bring/address")
    @ResponseBody
    @ResponseStatus(HttpStatus.CREATED)
    Taken fetch(@RequestBody AskedTable asked, @AuthenticationPrincipal SignedIn person) {
        return Taken.of(room.state(bringIns.fetch(asked.address(), person), person, PATIENCE));
    }

    /** How far the reading of files has come. */
    @GetMapping("/api/bring/{id}")
    @ResponseBody
    Taken state(@PathVariable String id, @AuthenticationPrincipal SignedIn person) {
        return Taken.of(room.state(id, person, PATIENCE));
    }

    @DeleteMapping("/api/bring/{id}")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@PathVariable String id, @AuthenticationPrincipal SignedIn person) {
        room.stop(id, person);
    }

    /** Reads the files in another way. */
    @PostMapping("/api/bring/{id}/intake")
    @ResponseBody
    Taken reshape(@PathVariable String id, @RequestBody Intake intake, @AuthenticationPrincipal SignedIn person) {
        bringIns.reshape(id, intake, person);
        return Taken.of(room.state(id, person, PATIENCE));
    }

    @ApiResponse(responseCode = "200", content = @Content(schema = @Schema(implementation = PlacingPreview.class)))
    @PostMapping("/api/bring/{id}/placing")
    @ResponseBody
    ResponseEntity<Object> place(
            @PathVariable String id, @RequestBody Placing placing, @AuthenticationPrincipal SignedIn person) {
        BringIn bringIn = room.get(id, person);
        return jobs.begin(person, "Placing the rows", progress -> {
            PlacingPreview preview = PlacingPreview.of(bringIns.place(bringIn, placing, person, progress));
            // Where some rows only are at hand, it is not known how many find a partner.
            if (!(placing instanceof Placing.ByTie tie)
                    || bringIn.stays() != null
                    || !bringIn.reading().parts().areHeld()) return preview;
            return preview.tied(ValueMatch.of(
                    bringIn.reading().table().column(tie.column()),
                    datasets.needed(tie.dataset()).dataset().table().column(tie.equals())));
        });
    }

    /** What is chosen of features that become a boundary set. */
    record Areas(String name, String level, String credit, String code, String areaName, String parent) {}

    /** What came of it. */
    record AreasKept(String address, int areas, List<String> troubles) {}

    /** Keeps the areas of the file as a boundary set; the file waits on, as it was. */
    @PostMapping("/api/bring/{id}/areas")
    @ResponseBody
    AreasKept keepAreas(@PathVariable String id, @RequestBody Areas areas, @AuthenticationPrincipal SignedIn person) {
        BoundaryCheck check = bringIns.areas(room.get(id, person), areas.code(), areas.areaName(), areas.parent());
        boundaries.keep(areas.name(), areas.level(), areas.credit(), check.areas(), person);
        return new AreasKept(
                "/boundary-sets/" + UriUtils.encodePathSegment(areas.name().strip(), StandardCharsets.UTF_8),
                check.areas().size(),
                check.troubles());
    }

    /** Lets the dataset serve these rows. */
    @ApiResponse(responseCode = "200", content = @Content(schema = @Schema(implementation = Taken.class)))
    @PostMapping("/api/bring/{id}/serve")
    @ResponseBody
    ResponseEntity<Object> serve(
            @PathVariable String id,
            @RequestParam(defaultValue = "false") boolean append,
            @AuthenticationPrincipal SignedIn person) {
        BringIn bringIn = room.get(id, person);
        return jobs.begin(person, "Serving the rows", progress -> {
            bringIns.serve(bringIn, append, person, progress);
            return Taken.at(id, "/datasets/" + bringIn.refreshes());
        });
    }

    /**
     * @param placing null when the rows have no place
     */
    record Keep(String name, Placing placing) {}

    @ApiResponse(responseCode = "201", content = @Content(schema = @Schema(implementation = Taken.class)))
    @PostMapping("/api/bring/{id}/keep")
    @ResponseBody
    ResponseEntity<Object> keep(
            @PathVariable String id, @RequestBody Keep keep, @AuthenticationPrincipal SignedIn person) {
        BringIn bringIn = room.get(id, person);
        return jobs.begin(person, "Keeping the rows", progress -> {
            long dataset = bringIns.keep(bringIn, keep.name(), keep.placing(), person, progress);
            return ResponseEntity.status(HttpStatus.CREATED)
                    .body(Taken.at(String.valueOf(dataset), "/datasets/" + dataset));
        });
    }
}
