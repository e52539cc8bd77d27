package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.web.Revisions;
import sarnik.app.work.AnswerQueue;
import sarnik.brief.Brief;
import sarnik.dashboard.Arrangement;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Moving;
import sarnik.dashboard.OwnTheme;
import sarnik.dashboard.Remaking;
import sarnik.dashboard.Removal;
import sarnik.dashboard.StartingSheet;
import sarnik.visual.Box;
import sarnik.visual.Question;
import tools.jackson.databind.json.JsonMapper;

/** The JSON interface of dashboards. A revision travels as the ETag; edits are JSON Patch under If-Match. */
@RestController
@RequestMapping("/api/dashboards")
class DashboardApi {

    static final String JSON_PATCH = "application/json-patch+json";

    private static final int MOST_TYPED = 2000;

    private final DashboardService dashboards;
    private final FrameService frames;
    private final WiringService wirings;
    private final DatasetService datasets;
    private final SheetAnswers sheets;
    private final AnswerQueue queue;
    private final JsonMapper mapper;

    DashboardApi(
            DashboardService dashboards,
            FrameService frames,
            WiringService wirings,
            DatasetService datasets,
            SheetAnswers sheets,
            AnswerQueue queue,
            JsonMapper mapper) {
        this.wirings = wirings;
        this.datasets = datasets;
        this.sheets = sheets;
        this.queue = queue;
        this.dashboards = dashboards;
        this.frames = frames;
        this.mapper = mapper;
    }

    private ResponseEntity<SheetAnswers.Sheet> answer(DashboardService.Opened opened) {
        return sheets.answer(opened);
    }

    /**
     * A dashboard as lists show it.
     *
     * @param published whether there is an edition that readers see
     * @param mine whether whoever asks has made it
     */
    record Line(long id, String title, boolean published, boolean mine, String owner, Instant changed) {}

    /** The dashboards that this person may read, those changed last first. */
    @GetMapping
    List<Line> all(@AuthenticationPrincipal SignedIn person) {
        return dashboards.all(person).stream()
                .map(d -> new Line(d.id(), d.title(), d.published(), d.mine(), d.owner(), d.changedAt()))
                .toList();
    }

    /** The title of a dashboard to be made. */
    record Make(String title) {}

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    SheetAnswers.Sheet make(@RequestBody Make make, @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.make(make.title(), person)).getBody();
    }

    /** The dataset of which a first page is made. */
    record First(long dataset) {}

    /**
     * A first page that was made.
     *
     * @param dashboard its id
     * @param guesses what was guessed of the dataset's numbers; may be empty
     */
    record FirstMade(long dashboard, String guesses) {}

    /** Makes a dashboard of a dataset by itself. */
    @PostMapping("/first")
    @ResponseStatus(HttpStatus.CREATED)
    DeferredResult<FirstMade> first(
            @RequestBody First first, @AuthenticationPrincipal SignedIn person, HttpServletRequest request) {
        SeenDatasets seen = seenFor(first.dataset(), person);
        return queue.answer(AnswerQueue.Asker.of(request).each(), seen.prepare(Set.of(first.dataset())), ticket -> {
            FrameService.MadePage made = frames.firstPage(seen, first.dataset());
            return new FirstMade(dashboards.keep(made.document(), person).id(), made.guesses());
        });
    }

    /**
     * What is made of an author's own colours.
     *
     * @param colours as {@link SheetAnswers.Sheet} has them
     * @param trouble what is hard to read in them; null where nothing is
     */
    record Coloured(List<Map<String, String>> colours, String trouble) {}

    /** Tries colours on, before they are kept. */
    @GetMapping("/{id}/own-colours")
    Coloured coloured(
            @PathVariable long id,
            @RequestParam String paper,
            @RequestParam String ink,
            @RequestParam String deed,
            @RequestParam String picked,
            @AuthenticationPrincipal SignedIn person) {
        dashboards.compose(id, person);
        OwnTheme own = new OwnTheme(paper, ink, deed, picked);
        if (!own.writtenAsColours()) throw new RefusedException("A colour is written as #RRGGBB, such as #1F5F66.");
        return new Coloured(List.of(own.colours(), own.nightColours()), own.trouble());
    }

    @PatchMapping(path = "/{id}", consumes = JSON_PATCH)
    ResponseEntity<SheetAnswers.Sheet> edit(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody String patch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.edit(id, Revisions.of(ifMatch), patch, person));
    }

    @PostMapping("/{id}/undo")
    ResponseEntity<SheetAnswers.Sheet> undo(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.undo(id, Revisions.of(ifMatch), person));
    }

    @PostMapping("/{id}/redo")
    ResponseEntity<SheetAnswers.Sheet> redo(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.redo(id, Revisions.of(ifMatch), person));
    }

    /** Whether other authors may change it. */
    @PutMapping("/{id}/shared")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void share(@PathVariable long id, @RequestBody boolean shared, @AuthenticationPrincipal SignedIn person) {
        dashboards.share(id, shared, person);
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        dashboards.remove(id, person);
    }

    /** The edit that takes parts away with what rests on them, for the page to make. */
    @GetMapping("/{id}/removals/{parts}")
    Removal.Removed removal(
            @PathVariable long id, @PathVariable List<String> parts, @AuthenticationPrincipal SignedIn person) {
        return Removal.of(composed(id, person).dashboard(), parts);
    }

    /**
     * The edit that arranges several visuals.
     *
     * @param across by how many cells they move to the right
     * @param down by how many cells they move down
     */
    @GetMapping("/{id}/arrangements/{parts}")
    List<Map<String, Object>> arranged(
            @PathVariable long id,
            @PathVariable List<String> parts,
            @RequestParam Arrangement.Act act,
            @RequestParam(defaultValue = "0") int across,
            @RequestParam(defaultValue = "0") int down,
            @AuthenticationPrincipal SignedIn person) {
        return frames.arranged(composed(id, person).dashboard(), parts, act, across, down);
    }

    /** What else a visual could be, each with the edit that makes it that. */
    @GetMapping("/{id}/others/{part}")
    DeferredResult<List<Remaking.Other>> others(
            @PathVariable long id,
            @PathVariable String part,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Reading reading = composed(id, person);
        return each(request, reading, ticket -> frames.others(reading, part));
    }

    /** The edit that adds another of a visual, of a page, or of several visuals. */
    @GetMapping("/{id}/copies/{parts}")
    Remaking.Copy copy(
            @PathVariable long id, @PathVariable List<String> parts, @AuthenticationPrincipal SignedIn person) {
        return frames.copy(composed(id, person).dashboard(), parts);
    }

    /** The columns of a dataset that a dashboard uses, and what stands for each in another. */
    @GetMapping("/{id}/moves")
    DeferredResult<List<Moving.Used>> moves(
            @PathVariable long id,
            @RequestParam long from,
            @RequestParam long to,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Reading reading = dashboards.read(id, person);
        dashboards.checkDatasets(person, from, to);
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                reading.datasets().prepare(Set.of(from, to)),
                ticket -> frames.moves(reading, from, to));
    }

    /**
     * Another of a dashboard.
     *
     * @param title of the one that is made
     * @param from id of a dataset that another takes the place of; null for the same datasets
     * @param to id of the other
     * @param columns names of columns, and what stands for each
     */
    record Duplicate(String title, Long from, Long to, Map<String, String> columns) {}

    @PostMapping("/{id}/duplicates")
    @ResponseStatus(HttpStatus.CREATED)
    Made duplicate(@PathVariable long id, @RequestBody Duplicate asked, @AuthenticationPrincipal SignedIn person) {
        if (asked.title() == null || asked.title().isBlank())
            throw new RefusedException("A dashboard needs a title: the question it answers.");
        DashboardDocument document = dashboards.open(id, person).document();
        DashboardDocument made = asked.from() == null || asked.to() == null
                ? Moving.again(document, asked.title().strip())
                : Moving.onto(
                        document,
                        asked.from(),
                        asked.to(),
                        asked.columns() == null ? Map.of() : asked.columns(),
                        asked.title().strip());
        return new Made(dashboards.keep(made, person).id(), null);
    }

    /**
     * What was made.
     *
     * @param dashboard id of the dashboard
     * @param visual id of the visual; null where all of it is new
     */
    record Made(long dashboard, String visual) {}

    /**
     * Where a visual is put as well.
     *
     * @param dashboard id of a dashboard; null for a new one
     * @param title of a new one; null for another
     */
    record Onto(Long dashboard, String title) {}

    /** Puts a visual on another dashboard, or begins one with it. */
    @PostMapping("/{id}/duplicates/{part}")
    @ResponseStatus(HttpStatus.CREATED)
    Made duplicate(
            @PathVariable long id,
            @PathVariable String part,
            @RequestBody Onto onto,
            @AuthenticationPrincipal SignedIn person) {
        Dashboard from = dashboards.open(id, person).document().dashboard();
        DashboardService.Opened to = onto.dashboard() == null
                ? dashboards.make(onto.title(), person)
                : dashboards.open(onto.dashboard(), person);
        FrameService.Copied copied = frames.copied(from, part, to.document().dashboard());
        dashboards.edit(to.id(), to.revision(), mapper.writeValueAsString(copied.ops()), person);
        return new Made(to.id(), copied.id());
    }

    /** What of it reaches what, and what is amiss, for its authors. */
    @GetMapping("/{id}/wiring")
    DeferredResult<WiringService.Sheet> wiring(
            @PathVariable long id, @AuthenticationPrincipal SignedIn person, HttpServletRequest request) {
        Reading reading = composed(id, person);
        return each(request, reading, ticket -> wirings.sheet(reading));
    }

    /** A question of which each matters, not only the newest of its page. */
    private <T> DeferredResult<T> each(HttpServletRequest request, Reading reading, AnswerQueue.Answer<T> answer) {
        return queue.answer(AnswerQueue.Asker.of(request).each(), reading.prepared(), answer);
    }

    private Reading composed(long id, SignedIn person) {
        return dashboards.compose(id, person).reading();
    }

    /** Datasets as somebody sees them who composes with one of them. */
    private SeenDatasets seenFor(long dataset, SignedIn person) {
        dashboards.checkDatasets(person, dataset);
        return datasets.seenBy(person);
    }

    @GetMapping("/{id}/briefs/{part}")
    DeferredResult<Brief> brief(
            @PathVariable long id,
            @PathVariable String part,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Reading reading = composed(id, person);
        Map<Long, String> others = dashboards.others(id, person);
        return each(request, reading, ticket -> frames.brief(reading, part, others));
    }

    /**
     * A sheet to start from, without data.
     *
     * @param name what it is called for {@link #startingSheet}
     * @param boxes where something will stand
     */
    record Start(String name, String words, String hint, List<Box> boxes) {}

    @GetMapping("/starting-sheets")
    List<Start> startingSheets() {
        return Arrays.stream(StartingSheet.values())
                .map(sheet -> new Start(
                        sheet.name(),
                        sheet.words(),
                        sheet.hint(),
                        sheet.places().stream().map(StartingSheet.Place::at).toList()))
                .toList();
    }

    /** The edit that arranges a page like a sheet to start from, with the data of a dataset. */
    @GetMapping("/{id}/starting-sheets/{name}")
    DeferredResult<StartingSheet.Made> startingSheet(
            @PathVariable long id,
            @PathVariable String name,
            @RequestParam long dataset,
            @RequestParam(required = false) String page,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Reading reading = composed(id, person);
        StartingSheet sheet = StartingSheet.of(name);
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                seenFor(dataset, person).prepare(Set.of(dataset)),
                ticket -> frames.startingSheet(reading, page, sheet, dataset));
    }

    /**
     * A sentence that an author is typing.
     *
     * @param text what is typed by now
     * @param dataset which it is about
     * @param page id of the page to which its visual would be added
     */
    record Typed(String text, long dataset, String page) {}

    /** Reads a sentence as far as it goes, and draws what it says. */
    @PostMapping("/{id}/sentences")
    DeferredResult<FrameService.Sentence> sentence(
            @PathVariable long id,
            @RequestBody Typed typed,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        if (typed.text() == null || typed.text().length() > MOST_TYPED)
            throw new RefusedException("A sentence has up to %d letters.".formatted(MOST_TYPED));
        Reading reading = composed(id, person);
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                seenFor(typed.dataset(), person).prepare(Set.of(typed.dataset())),
                ticket -> frames.sentence(
                        reading, typed.page(), typed.text(), typed.dataset(), mapper::writeValueAsString));
    }

    @GetMapping("/{id}/proposals")
    DeferredResult<List<FrameService.Drawn>> proposals(
            @PathVariable long id,
            @RequestParam Question question,
            @RequestParam long dataset,
            @RequestParam(required = false) String page,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Reading reading = composed(id, person);
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                seenFor(dataset, person).prepare(Set.of(dataset)),
                ticket -> frames.proposals(reading, page, question, dataset, mapper::writeValueAsString));
    }
}
