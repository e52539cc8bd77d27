package sarnik.app.dashboard;

import com.fasterxml.jackson.annotation.JsonRawValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
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
import sarnik.app.people.SignedIn;
import sarnik.app.web.Revisions;
import sarnik.dashboard.Brief;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.FilterOffer;
import sarnik.dashboard.Narrowing;
import sarnik.dashboard.PlaceTeller;
import sarnik.dashboard.Proposals;
import tools.jackson.databind.json.JsonMapper;

/** The JSON interface of dashboards. A revision travels as the ETag; edits are JSON Patch under If-Match. */
@RestController
@RequestMapping("/api/dashboards")
class DashboardApi {

    static final String JSON_PATCH = "application/json-patch+json";

    private final DashboardService dashboards;
    private final FrameService frames;
    private final JsonMapper mapper;

    DashboardApi(DashboardService dashboards, FrameService frames, JsonMapper mapper) {
        this.dashboards = dashboards;
        this.frames = frames;
        this.mapper = mapper;
    }

    /**
     * @param offers what each filter of the page offers
     * @param touches by visual, filter and parameter: the visuals that change with it
     * @param grounds the sources of pictures, by name
     */
    record Sheet(
            long id,
            long revision,
            @JsonRawValue String document,
            Map<String, FilterOffer> offers,
            Map<String, Set<String>> touches,
            boolean openToReaders,
            boolean shared,
            boolean mayChange,
            boolean mayShare,
            String undo,
            String redo,
            Map<String, FrameService.GroundSource> grounds) {}

    private ResponseEntity<Sheet> answer(DashboardService.Opened opened) {
        Dashboard dashboard = opened.document().dashboard();
        Map<String, Set<String>> touches = new LinkedHashMap<>();
        for (Set<String> ids : List.of(dashboard.visuals().keySet(), dashboard.filters().keySet(), dashboard.parameters().keySet())) ids.forEach(id -> touches.put(id, Narrowing.touched(dashboard, id)));
        Sheet sheet = new Sheet(opened.id(), opened.revision(), opened.document().json(), frames.offers(dashboard), touches,
                opened.openToReaders(), opened.shared(), opened.mayChange(), opened.mayShare(), opened.undo(), opened.redo(), frames.groundSources());
        return ResponseEntity.ok().eTag(Revisions.tag(opened.revision())).body(sheet);
    }

    /** The title of a dashboard to be made. */
    record Make(String title) {}

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Sheet make(@RequestBody Make make, @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.make(make.title(), person)).getBody();
    }

    @GetMapping("/{id}")
    ResponseEntity<Sheet> open(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.open(id, person));
    }

    @PatchMapping(path = "/{id}", consumes = JSON_PATCH)
    ResponseEntity<Sheet> edit(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody String patch, @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.edit(id, Revisions.of(ifMatch), patch, person));
    }

    @PostMapping("/{id}/undo")
    ResponseEntity<Sheet> undo(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @AuthenticationPrincipal SignedIn person) {
        return answer(dashboards.undo(id, Revisions.of(ifMatch), person));
    }

    @PostMapping("/{id}/redo")
    ResponseEntity<Sheet> redo(@PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch,
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

    @PostMapping("/{id}/frames")
    FrameService.Frames frames(@PathVariable long id, @RequestBody FrameService.Asked asked, @AuthenticationPrincipal SignedIn person) {
        return frames.frames(dashboards.read(id, person), asked);
    }

    @PostMapping("/{id}/places/told")
    PlaceTeller.Told told(@PathVariable long id, @RequestBody FrameService.AskedPlace asked, @AuthenticationPrincipal SignedIn person) {
        return frames.tell(dashboards.read(id, person), asked);
    }

    @PostMapping("/{id}/places/others")
    List<PlaceTeller.Found> others(@PathVariable long id, @RequestBody FrameService.AskedPlace asked, @AuthenticationPrincipal SignedIn person) {
        return frames.others(dashboards.read(id, person), asked);
    }

    @PostMapping("/{id}/pictures")
    ResponseEntity<byte[]> picture(@PathVariable long id, @RequestBody FrameService.AskedPicture asked, @AuthenticationPrincipal SignedIn person) {
        FrameService.Picture picture = frames.picture(dashboards.read(id, person), asked);
        return ResponseEntity.ok().contentType(MediaType.parseMediaType(picture.type())).body(picture.bytes());
    }

    @PostMapping(path = "/{id}/rows", produces = "text/csv")
    byte[] rows(@PathVariable long id, @RequestBody FrameService.AskedRows asked, @AuthenticationPrincipal SignedIn person) {
        return frames.rows(dashboards.read(id, person), asked);
    }

    @GetMapping("/{id}/briefs/{part}")
    Brief brief(@PathVariable long id, @PathVariable String part, @AuthenticationPrincipal SignedIn person) {
        return frames.brief(dashboards.read(id, person), part);
    }

    @GetMapping("/{id}/proposals")
    List<FrameService.Drawn> proposals(@PathVariable long id, @RequestParam Proposals.Question question, @RequestParam long dataset,
            @AuthenticationPrincipal SignedIn person) {
        return frames.proposals(dashboards.open(id, person).document(), question, dataset, mapper::writeValueAsString);
    }
}
