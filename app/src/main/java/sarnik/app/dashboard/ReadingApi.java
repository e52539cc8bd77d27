package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.image.Images;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.finding.Finder;
import sarnik.format.TableFormat;
import sarnik.geo.ShapeBand;
import sarnik.narrow.ValueCounts;
import sarnik.reading.ReadPage;
import sarnik.visual.map.MapVisual;
import sarnik.visual.map.PlaceTeller;

/** What a dashboard answers whoever reads it: figures, values to choose from, places, pictures, rows. */
@RestController
@RequestMapping({"/api/dashboards/{id}", "/api/editions/{edition}", "/api/versions/{version}", "/api/shown/{bearer}"})
class ReadingApi implements AutoCloseable {

    private static final MediaType CSV = new MediaType("text", "csv", StandardCharsets.UTF_8);

    private final DashboardService dashboards;
    private final FrameService frames;
    private final FilterService filters;
    private final SheetAnswers sheets;
    private final AnswerQueue queue;

    /** Pictures take turns of their own: one takes as long as many answers. */
    private final AnswerQueue pictures = new AnswerQueue(1);

    ReadingApi(
            DashboardService dashboards,
            FrameService frames,
            FilterService filters,
            SheetAnswers sheets,
            AnswerQueue queue) {
        this.dashboards = dashboards;
        this.frames = frames;
        this.filters = filters;
        this.sheets = sheets;
        this.queue = queue;
    }

    @Override
    public void close() {
        pictures.close();
    }

    /** A question of which each matters, not only the newest of its page. */
    private <T> DeferredResult<T> each(HttpServletRequest request, Reading reading, AnswerQueue.Answer<T> answer) {
        return queue.answer(AnswerQueue.Asker.of(request).each(), reading.prepared(), answer);
    }

    /** The document with all that a page needs to know of it, which can be laid out before its rows are there. */
    @GetMapping
    DeferredResult<ResponseEntity<SheetAnswers.Sheet>> open(Reading reading, HttpServletRequest request) {
        CompletableFuture<Void> ready = reading.prepared();
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                AnswerQueue.soon(ready),
                ticket -> sheets.answer(dashboards.opened(reading), ready));
    }

    @PostMapping("/frames")
    DeferredResult<ReadPage.Frames> frames(
            Reading reading, @RequestBody FrameService.Asked asked, HttpServletRequest request) {
        frames.check(asked);
        if (asked.isForFile()) checkTaken(reading.takes().rows(), "rows");
        CompletableFuture<Void> ready = reading.prepared();
        return queue.answer(
                AnswerQueue.Asker.of(request), ready, ticket -> frames.frames(reading, ready, asked, ticket));
    }

    /** The values of a filter, each with how many rows the other filters leave it. */
    @PostMapping("/filters/values")
    DeferredResult<ValueCounts> values(
            Reading reading, @RequestBody FilterService.AskedValues asked, HttpServletRequest request) {
        return each(request, reading, ticket -> filters.values(reading, asked));
    }

    /** What words mean that a reader types to narrow a page. */
    @PostMapping("/narrowings")
    DeferredResult<Finder.Found> find(
            Reading reading, @RequestBody FilterService.AskedWords asked, HttpServletRequest request) {
        return each(request, reading, ticket -> filters.find(reading, asked));
    }

    @PostMapping("/places/told")
    DeferredResult<PlaceTeller.Told> told(
            Reading reading, @RequestBody FrameService.AskedPlace asked, HttpServletRequest request) {
        return each(request, reading, ticket -> frames.tell(reading, asked));
    }

    @PostMapping("/places/others")
    DeferredResult<List<PlaceTeller.Found>> others(
            Reading reading, @RequestBody FrameService.AskedPlace asked, HttpServletRequest request) {
        checkGiven(reading, asked.visual(), MapVisual.Control.NEAR);
        return each(request, reading, ticket -> frames.others(reading, asked));
    }

    @PostMapping("/pictures")
    DeferredResult<ResponseEntity<byte[]>> picture(
            Reading reading, @RequestBody FrameService.AskedPicture asked, HttpServletRequest request) {
        checkTaken(reading.takes().pictures(), "pictures");
        checkGiven(reading, asked.visual(), MapVisual.Control.PICTURE);
        if (asked.ground() != null) checkGiven(reading, asked.visual(), MapVisual.Control.GROUND);
        frames.check(asked);
        return pictures.answer(AnswerQueue.Asker.of(request).each(), reading.prepared(), ticket -> {
            FrameService.Picture picture = frames.picture(reading, asked);
            return ResponseEntity.ok()
                    .contentType(MediaType.parseMediaType(picture.type()))
                    .body(picture.bytes());
        });
    }

    /** A picture that a visual of the dashboard shows. */
    @GetMapping("/files/{file}")
    ResponseEntity<byte[]> file(Reading reading, @PathVariable String file) {
        Images.Image image = frames.image(reading.dashboard(), file);
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
            Reading reading,
            @PathVariable String visual,
            @PathVariable String layer,
            @PathVariable ShapeBand band,
            HttpServletRequest request) {
        return each(
                request,
                reading,
                ticket -> frames.ownShapes(reading, visual, layer, band).answer(request));
    }

    @PostMapping("/rows")
    DeferredResult<ResponseEntity<byte[]>> rows(
            Reading reading, @RequestBody FrameService.AskedRows asked, HttpServletRequest request) {
        checkTaken(reading.takes().rows(), "rows");
        checkGiven(reading, asked.visual(), MapVisual.Control.PICTURE);
        return each(
                request,
                reading,
                ticket -> ResponseEntity.ok()
                        .contentType(
                                asked.format() == TableFormat.CSV || asked.format() == TableFormat.SPREADSHEET_CSV
                                        ? CSV
                                        : MediaType.parseMediaType(
                                                asked.format().mediaType()))
                        .body(frames.rows(reading, asked, reading.composes())));
    }

    /**
     * Checks that readers are given a control of a map: one that is withheld is not answered either. Authors have all.
     *
     * @throws RefusedException with 403 when it is withheld
     */
    private static void checkGiven(Reading reading, String visual, MapVisual.Control control) {
        if (reading.composes()
                || visual == null
                || !(reading.dashboard().visuals().get(visual) instanceof MapVisual map)) return;
        if (map.withheld() != null && map.withheld().contains(control))
            throw new RefusedException(
                    HttpStatus.FORBIDDEN,
                    phrase("This map does not give that to its readers. Ask whoever made the dashboard."));
    }

    /**
     * Checks that readers may take something along.
     *
     * @throws RefusedException with 403 when they may not
     */
    private static void checkTaken(boolean given, String what) {
        if (!given)
            throw new RefusedException(
                    HttpStatus.FORBIDDEN,
                    phrase(
                            "{0, select, rows {Whoever made this dashboard lets no rows be taken along. Ask them for what you need.} other {Whoever made this dashboard lets no pictures be taken along. Ask them for what you need.}}",
                            what));
    }
}
