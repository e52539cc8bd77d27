package sarnik.app.dashboard;

import com.fasterxml.jackson.annotation.JsonRawValue;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
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
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.web.Revisions;
import sarnik.app.work.AnswerQueue;
import sarnik.brief.Brief;
import sarnik.dashboard.Arrangement;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Finish;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.Moving;
import sarnik.dashboard.OwnTheme;
import sarnik.dashboard.Remaking;
import sarnik.dashboard.Removal;
import sarnik.dashboard.StartingSheet;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.Narrowing;
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
    private final FilterService filters;
    private final WiringService wirings;
    private final AnswerQueue queue;
    private final JsonMapper mapper;

    DashboardApi(
            DashboardService dashboards,
            FrameService frames,
            FilterService filters,
            WiringService wirings,
            AnswerQueue queue,
            JsonMapper mapper) {
        this.filters = filters;
        this.wirings = wirings;
        this.queue = queue;
        this.dashboards = dashboards;
        this.frames = frames;
        this.mapper = mapper;
    }

    /**
     * @param offers what each filter offers, page by page
     * @param touches by visual, filter and parameter: the visuals that change with it
     * @param framed by visual: the visuals that change with what is in sight of it
     * @param played by visual: the visuals that change with the moment that it plays
     * @param means by visual on which something can be picked: what tells the column of its picks
     * @param sources by visual on which something can be picked: the dataset and the column of its picks
     * @param grounds the sources of pictures, by name
     * @param worn by visual: how it is dressed
     * @param phone by page: its visuals as they stand on a phone
     * @param colours of the author's own, by the names they have in the style: those of the day, then those of the
     *     night; empty for none
     */
    record Sheet(
            long id,
            long revision,
            @JsonRawValue String document,
            Map<String, FilterOffer> offers,
            Map<String, Set<String>> touches,
            Map<String, Set<String>> framed,
            Map<String, Set<String>> played,
            Map<String, String> means,
            Map<String, String> sources,
            boolean openToReaders,
            boolean shared,
            boolean mayChange,
            boolean mayShare,
            String undo,
            String redo,
            Map<String, FrameService.GroundSource> grounds,
            Map<String, Finish> worn,
            Map<String, List<Dashboard.Spot>> phone,
            List<Map<String, String>> colours) {}

    private ResponseEntity<Sheet> answer(DashboardService.Opened opened) {
        Dashboard dashboard = opened.document().dashboard();
        Map<String, Set<String>> touches = new LinkedHashMap<>();
        for (Set<String> ids : List.of(
                dashboard.visuals().keySet(),
                dashboard.filters().keySet(),
                dashboard.parameters().keySet()))
            ids.forEach(id -> touches.put(id, Narrowing.touched(dashboard, Kinds.ALL, id)));
        Sheet sheet = new Sheet(
                opened.id(),
                opened.revision(),
                opened.document().json(),
                filters.offers(dashboard),
                touches,
                each(dashboard.visuals().keySet(), id -> Narrowing.framed(dashboard, id)),
                each(dashboard.visuals().keySet(), id -> Narrowing.played(dashboard, Kinds.ALL, id)),
                filters.meanings(dashboard),
                filters.sources(dashboard),
                opened.openToReaders(),
                opened.shared(),
                opened.mayChange(),
                opened.mayShare(),
                opened.undo(),
                opened.redo(),
                frames.groundSources(),
                each(dashboard.visuals().keySet(), dashboard::finishOf),
                each(dashboard.pages().keySet(), dashboard::onPhone),
                dashboard.own() == null
                        ? List.of()
                        : List.of(dashboard.own().colours(), dashboard.own().nightColours()));
        return ResponseEntity.ok().eTag(Revisions.tag(opened.revision())).body(sheet);
    }

    private static <T> Map<String, T> each(Set<String> ids, Function<String, T> of) {
        return ids.stream().collect(Collectors.toMap(id -> id, of));
    }

    /** The title of a dashboard to be made. */
    record Make(String title) {}

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Sheet make(@RequestBody Make make, @AuthenticationPrincipal SignedIn person) {
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
        return queue.answer(AnswerQueue.Asker.of(request).each(), frames.prepare(Set.of(first.dataset())), ticket -> {
            FrameService.MadePage made = frames.firstPage(first.dataset());
            return new FirstMade(dashboards.keep(made.document(), person).id(), made.guesses());
        });
    }

    /**
     * What is made of an author's own colours.
     *
     * @param colours as {@link Sheet} has them
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

    @GetMapping("/{id}")
    DeferredResult<ResponseEntity<Sheet>> open(
            @PathVariable long id, @AuthenticationPrincipal SignedIn person, HttpServletRequest request) {
        DashboardService.Opened opened = dashboards.open(id, person);
        return each(request, opened.document().dashboard(), ticket -> answer(opened));
    }

    @PatchMapping(path = "/{id}", consumes = JSON_PATCH)
    ResponseEntity<Sheet> edit(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody String patch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.edit(id, Revisions.of(ifMatch), patch, person));
    }

    @PostMapping("/{id}/undo")
    ResponseEntity<Sheet> undo(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.undo(id, Revisions.of(ifMatch), person));
    }

    @PostMapping("/{id}/redo")
    ResponseEntity<Sheet> redo(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.redo(id, Revisions.of(ifMatch), person));
    }

    @PutMapping("/{id}/open")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void openToReaders(@PathVariable long id, @RequestBody boolean open, @AuthenticationPrincipal SignedIn person) {
        dashboards.openToReaders(id, open, person);
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
        return Removal.of(dashboards.read(id, person), parts);
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
        return frames.arranged(dashboards.read(id, person), parts, act, across, down);
    }

    /** What else a visual could be, each with the edit that makes it that. */
    @GetMapping("/{id}/others/{part}")
    DeferredResult<List<Remaking.Other>> others(
            @PathVariable long id,
            @PathVariable String part,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        return each(request, dashboard, ticket -> frames.others(dashboard, part));
    }

    /** The edit that adds another of a visual, of a page, or of several visuals. */
    @GetMapping("/{id}/copies/{parts}")
    Remaking.Copy copy(
            @PathVariable long id, @PathVariable List<String> parts, @AuthenticationPrincipal SignedIn person) {
        return frames.copy(dashboards.read(id, person), parts);
    }

    /** The columns of a dataset that a dashboard uses, and what stands for each in another. */
    @GetMapping("/{id}/moves")
    DeferredResult<List<Moving.Used>> moves(
            @PathVariable long id,
            @RequestParam long from,
            @RequestParam long to,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        DashboardDocument document = dashboards.open(id, person).document();
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                frames.prepare(Set.of(from, to)),
                ticket -> frames.moves(document, from, to));
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
        Dashboard dashboard = dashboards.compose(id, person).document().dashboard();
        return each(request, dashboard, ticket -> wirings.sheet(dashboard));
    }

    /** A question of which each matters, not only the newest of its page. */
    private <T> DeferredResult<T> each(HttpServletRequest request, Dashboard dashboard, AnswerQueue.Answer<T> answer) {
        return queue.answer(AnswerQueue.Asker.of(request).each(), frames.prepare(dashboard), answer);
    }

    @GetMapping("/{id}/briefs/{part}")
    DeferredResult<Brief> brief(
            @PathVariable long id,
            @PathVariable String part,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        Map<Long, String> others = dashboards.others(id, person);
        return each(request, dashboard, ticket -> frames.brief(dashboard, part, others));
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
        Dashboard dashboard = dashboards.open(id, person).document().dashboard();
        StartingSheet sheet = StartingSheet.of(name);
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                frames.prepare(Set.of(dataset)),
                ticket -> frames.startingSheet(dashboard, page, sheet, dataset));
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
        DashboardDocument document = dashboards.open(id, person).document();
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                frames.prepare(Set.of(typed.dataset())),
                ticket -> frames.sentence(
                        document, typed.page(), typed.text(), typed.dataset(), mapper::writeValueAsString));
    }

    @GetMapping("/{id}/proposals")
    DeferredResult<List<FrameService.Drawn>> proposals(
            @PathVariable long id,
            @RequestParam Question question,
            @RequestParam long dataset,
            @RequestParam(required = false) String page,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        DashboardDocument document = dashboards.open(id, person).document();
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                frames.prepare(Set.of(dataset)),
                ticket -> frames.proposals(document, page, question, dataset, mapper::writeValueAsString));
    }
}
