package sarnik.app.dashboard;

import com.fasterxml.jackson.annotation.JsonRawValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.web.Revisions;
import sarnik.app.work.AnswerQueue;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Finish;
import sarnik.dashboard.Kinds;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.Narrowing;
import tools.jackson.databind.json.JsonMapper;

/** Says all that a page needs to know of a dashboard before it asks for figures. */
@Component
public class SheetAnswers {

    private final FrameService frames;
    private final FilterService filters;
    private final JsonMapper mapper;

    SheetAnswers(FrameService frames, FilterService filters, JsonMapper mapper) {
        this.frames = frames;
        this.filters = filters;
        this.mapper = mapper;
    }

    /** The same as JSON, for somebody who only reads. */
    public String written(Reading reading) {
        return mapper.writeValueAsString(
                answer(DashboardService.Opened.read(reading)).getBody());
    }

    /**
     * @param edition the number of the edition; null for the draft
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
     * @param kept what is said of rows that this viewer does not see, a sentence each
     * @param takes what may be taken along
     * @param live by dataset whose rows come by themselves: the visuals that show them
     * @param coming whether rows were still on their way, so that it is to be asked for again once they are there
     */
    record Sheet(
            long id,
            long revision,
            Integer edition,
            @JsonRawValue String document,
            Map<String, FilterOffer> offers,
            Map<String, Set<String>> touches,
            Map<String, Set<String>> framed,
            Map<String, Set<String>> played,
            Map<String, String> means,
            Map<String, String> sources,
            boolean published,
            boolean shared,
            boolean mayChange,
            boolean mayShare,
            String undo,
            String redo,
            Map<String, FrameService.GroundSource> grounds,
            Map<String, Finish> worn,
            Map<String, List<Dashboard.Spot>> phone,
            List<Map<String, String>> colours,
            List<String> kept,
            Takes takes,
            Map<Long, Set<String>> live,
            boolean coming) {}

    /** What a page needs to know; waits a moment for rows that are on their way. */
    ResponseEntity<Sheet> answer(DashboardService.Opened opened) {
        CompletableFuture<Void> ready = opened.reading().prepared();
        AnswerQueue.soon(ready).join();
        return answer(opened, ready);
    }

    /** @param ready what {@link Reading#prepared} gave */
    ResponseEntity<Sheet> answer(DashboardService.Opened opened, CompletableFuture<Void> ready) {
        Reading reading = opened.reading();
        Dashboard dashboard = reading.dashboard();
        SeenDatasets.Standing standing = reading.standing(ready);
        Map<String, Set<String>> touches = new LinkedHashMap<>();
        for (Set<String> ids : List.of(
                dashboard.visuals().keySet(),
                dashboard.filters().keySet(),
                dashboard.parameters().keySet()))
            ids.forEach(id -> touches.put(id, Narrowing.touched(dashboard, Kinds.ALL, id)));
        Sheet sheet = new Sheet(
                reading.id(),
                reading.revision(),
                reading.edition(),
                reading.document().json(),
                filters.offers(reading, standing.datasets()),
                touches,
                each(dashboard.visuals().keySet(), id -> Narrowing.framed(dashboard, id)),
                each(dashboard.visuals().keySet(), id -> Narrowing.played(dashboard, Kinds.ALL, id)),
                filters.meanings(reading, standing.datasets()),
                filters.sources(dashboard),
                opened.published(),
                opened.shared(),
                reading.composes(),
                opened.mayShare(),
                opened.undo(),
                opened.redo(),
                frames.groundSources(),
                each(dashboard.visuals().keySet(), dashboard::finishOf),
                each(dashboard.pages().keySet(), dashboard::onPhone),
                dashboard.own() == null
                        ? List.of()
                        : List.of(dashboard.own().colours(), dashboard.own().nightColours()),
                reading.datasets().told(dashboard.datasets()),
                reading.takes(),
                live(reading),
                !standing.isWhole());
        return ResponseEntity.ok().eTag(Revisions.tag(reading.revision())).body(sheet);
    }

    /** The visuals that show rows which come by themselves, by the datasets of those. */
    private static Map<Long, Set<String>> live(Reading reading) {
        Map<Long, Set<String>> live = new TreeMap<>();
        for (long id : reading.dashboard().datasets()) {
            if (!reading.datasets().isLive(id)) continue;
            Set<String> shown = new TreeSet<>();
            reading.dashboard().visuals().forEach((visual, of) -> {
                if (Kinds.ALL.of(of).datasets(of).contains(id)) shown.add(visual);
            });
            live.put(id, shown);
        }
        return live;
    }

    private static <T> Map<String, T> each(Set<String> ids, Function<String, T> of) {
        return ids.stream().collect(Collectors.toMap(id -> id, of));
    }
}
