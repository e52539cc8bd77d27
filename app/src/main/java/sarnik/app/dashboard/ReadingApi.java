package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.image.Images;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.dashboard.Dashboard;
import sarnik.finding.Finder;
import sarnik.geo.ShapeBand;
import sarnik.narrow.ValueCounts;
import sarnik.visual.map.MapVisual;
import sarnik.visual.map.PlaceTeller;

/** What a dashboard answers whoever reads it: figures, values to choose from, places, pictures, rows. */
@RestController
@RequestMapping("/api/dashboards/{id}")
class ReadingApi implements AutoCloseable {

    private static final MediaType CSV = new MediaType("text", "csv", StandardCharsets.UTF_8);

    private final DashboardService dashboards;
    private final FrameService frames;
    private final FilterService filters;
    private final AnswerQueue queue;

    /** Pictures take turns of their own: one takes as long as many answers. */
    private final AnswerQueue pictures = new AnswerQueue(1);

    ReadingApi(DashboardService dashboards, FrameService frames, FilterService filters, AnswerQueue queue) {
        this.dashboards = dashboards;
        this.frames = frames;
        this.filters = filters;
        this.queue = queue;
    }

    @Override
    public void close() {
        pictures.close();
    }

    /** A question of which each matters, not only the newest of its page. */
    private <T> DeferredResult<T> each(HttpServletRequest request, Dashboard dashboard, AnswerQueue.Answer<T> answer) {
        return queue.answer(AnswerQueue.Asker.of(request).each(), frames.prepare(dashboard), answer);
    }

    @PostMapping("/frames")
    DeferredResult<FrameService.Frames> frames(
            @PathVariable long id,
            @RequestBody FrameService.Asked asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        frames.check(asked);
        return queue.answer(
                AnswerQueue.Asker.of(request),
                frames.prepare(dashboard),
                ticket -> frames.frames(dashboard, asked, ticket));
    }

    /** The values of a filter, each with how many rows the other filters leave it. */
    @PostMapping("/filters/values")
    DeferredResult<ValueCounts> values(
            @PathVariable long id,
            @RequestBody FilterService.AskedValues asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        return each(request, dashboard, ticket -> filters.values(dashboard, asked));
    }

    /** What words mean that a reader types to narrow a page. */
    @PostMapping("/narrowings")
    DeferredResult<Finder.Found> find(
            @PathVariable long id,
            @RequestBody FilterService.AskedWords asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        return each(request, dashboard, ticket -> filters.find(dashboard, asked));
    }

    @PostMapping("/places/told")
    DeferredResult<PlaceTeller.Told> told(
            @PathVariable long id,
            @RequestBody FrameService.AskedPlace asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        return each(request, dashboard, ticket -> frames.tell(dashboard, asked));
    }

    @PostMapping("/places/others")
    DeferredResult<List<PlaceTeller.Found>> others(
            @PathVariable long id,
            @RequestBody FrameService.AskedPlace asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        checkGiven(dashboard, asked.visual(), MapVisual.Control.NEAR, person);
        return each(request, dashboard, ticket -> frames.others(dashboard, asked));
    }

    @PostMapping("/pictures")
    DeferredResult<ResponseEntity<byte[]>> picture(
            @PathVariable long id,
            @RequestBody FrameService.AskedPicture asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        checkGiven(dashboard, asked.visual(), MapVisual.Control.PICTURE, person);
        if (asked.ground() != null) checkGiven(dashboard, asked.visual(), MapVisual.Control.GROUND, person);
        frames.check(asked);
        return pictures.answer(AnswerQueue.Asker.of(request).each(), frames.prepare(dashboard), ticket -> {
            FrameService.Picture picture = frames.picture(dashboard, asked);
            return ResponseEntity.ok()
                    .contentType(MediaType.parseMediaType(picture.type()))
                    .body(picture.bytes());
        });
    }

    /** A picture that a visual of the dashboard shows. */
    @GetMapping("/files/{file}")
    ResponseEntity<byte[]> file(
            @PathVariable long id, @PathVariable String file, @AuthenticationPrincipal SignedIn person) {
        Images.Image image = frames.image(dashboards.read(id, person), file);
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(image.type()))
                .cacheControl(
                        CacheControl.maxAge(Duration.ofDays(30)).cachePrivate().immutable())
                .header("X-Content-Type-Options", "nosniff")
                .body(image.bytes());
    }

    /** The shapes that the rows of a layer brought along, which travel apart from figures. */
    @GetMapping("/visuals/{visual}/layers/{layer}/shapes/{band}")
    DeferredResult<ResponseEntity<byte[]>> shapes(
            @PathVariable long id,
            @PathVariable String visual,
            @PathVariable String layer,
            @PathVariable ShapeBand band,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        return each(
                request,
                dashboard,
                ticket -> frames.ownShapes(dashboard, visual, layer, band).answer(request));
    }

    @PostMapping("/rows")
    DeferredResult<ResponseEntity<byte[]>> rows(
            @PathVariable long id,
            @RequestBody FrameService.AskedRows asked,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Dashboard dashboard = dashboards.read(id, person);
        checkGiven(dashboard, asked.visual(), MapVisual.Control.PICTURE, person);
        return each(
                request,
                dashboard,
                ticket -> ResponseEntity.ok().contentType(CSV).body(frames.rows(dashboard, asked, person.isAuthor())));
    }

    /**
     * Checks that readers are given a control of a map: one that is withheld is not answered either. Authors have all.
     *
     * @throws RefusedException with 403 when it is withheld
     */
    private static void checkGiven(Dashboard dashboard, String visual, MapVisual.Control control, SignedIn person) {
        if (person.isAuthor() || visual == null || !(dashboard.visuals().get(visual) instanceof MapVisual map)) return;
        if (map.withheld() != null && map.withheld().contains(control))
            throw new RefusedException(
                    HttpStatus.FORBIDDEN,
                    "This map does not give that to its readers. Ask whoever made the dashboard.");
    }
}
