package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.key.SharedKeys;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.dashboard.DashboardFile;
import sarnik.dashboard.Moving;
import sarnik.data.Datasets;
import sarnik.visual.SharedKey;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Dashboards as files: taken along without rows, and brought in onto datasets that are there. */
@RestController
class FileApi {

    private final DashboardService dashboards;
    private final DatasetService datasets;
    private final SharedKeys keys;
    private final AnswerQueue queue;
    private final JsonMapper mapper;

    FileApi(
            DashboardService dashboards,
            DatasetService datasets,
            SharedKeys keys,
            AnswerQueue queue,
            JsonMapper mapper) {
        this.dashboards = dashboards;
        this.datasets = datasets;
        this.keys = keys;
        this.queue = queue;
        this.mapper = mapper;
    }

    @GetMapping("/api/dashboards/{id}/file")
    DeferredResult<ResponseEntity<byte[]>> take(
            @PathVariable long id, @AuthenticationPrincipal SignedIn person, HttpServletRequest request) {
        Reading reading = dashboards.compose(id, person).reading();
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                reading.datasets().prepare(reading.dashboard().datasets()),
                ticket -> ResponseEntity.ok()
                        .contentType(MediaType.APPLICATION_JSON)
                        .header(
                                HttpHeaders.CONTENT_DISPOSITION,
                                ContentDisposition.attachment()
                                        .filename(reading.dashboard().title() + ".sarnik.json", StandardCharsets.UTF_8)
                                        .build()
                                        .toString())
                        .body(file(reading).text().getBytes(StandardCharsets.UTF_8)));
    }

    private DashboardFile file(Reading reading) {
        List<DashboardFile.OfDataset> of = new ArrayList<>();
        for (long id : reading.dashboard().datasets()) {
            Description said = datasets.description(id).orElse(null);
            if (said == null || !(reading.datasets().find(id) instanceof Datasets.Found.Ready ready)) continue;
            of.add(DashboardFile.OfDataset.of(ready.dataset(), said.calculations(), said.columnNames()));
        }
        Set<String> worn = new LinkedHashSet<>();
        gatherKeys(mapper.readTree(reading.document().json()), worn);
        List<SharedKey> shared =
                worn.stream().flatMap(name -> keys.find(name).stream()).toList();
        return new DashboardFile(reading.document(), of, shared);
    }

    private static void gatherKeys(JsonNode node, Set<String> worn) {
        if (node.isObject() && node.path("colour").path("key").isString())
            worn.add(node.path("colour").path("key").asString());
        node.forEach(part -> gatherKeys(part, worn));
    }

    /**
     * A file that is brought in.
     *
     * @param file its content
     * @param onto id of a dataset that is there, by what the file calls its own; null or left out to have it guessed
     */
    record Match(JsonNode file, Map<Long, Long> onto) {}

    /**
     * A dataset of the file.
     *
     * @param to id of the dataset that would take its place; null where none can be read
     * @param guessed whether that was guessed, by its name and its columns
     * @param used the columns that the dashboard uses, with what stands for each
     */
    record Matched(long id, String name, Long to, boolean guessed, List<Moving.Used> used) {}

    /**
     * What a file would come to.
     *
     * @param keys sentences about the shared keys that it wears
     */
    record Sheet(String title, List<Matched> datasets, List<String> keys) {}

    @PostMapping("/api/dashboard-files/match")
    DeferredResult<Sheet> match(
            @RequestBody Match asked, @AuthenticationPrincipal SignedIn person, HttpServletRequest request) {
        DashboardFile file = read(asked.file());
        Map<Long, Long> chosen = asked.onto() == null ? Map.of() : asked.onto();
        Map<Long, Long> onto = new LinkedHashMap<>();
        for (long id : file.document().dashboard().datasets()) {
            Long to = chosen.get(id) != null ? chosen.get(id) : likely(file.dataset(id), person);
            if (to != null) dashboards.checkDatasets(person, to);
            onto.put(id, to);
        }
        SeenDatasets seen = datasets.seenBy(person);
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                seen.prepare(onto.values().stream().filter(Objects::nonNull).toList()),
                ticket -> new Sheet(
                        file.document().dashboard().title(),
                        onto.entrySet().stream()
                                .map(one -> new Matched(
                                        one.getKey(),
                                        file.dataset(one.getKey()).name(),
                                        one.getValue(),
                                        chosen.get(one.getKey()) == null,
                                        one.getValue() == null
                                                ? List.of()
                                                : file.used(one.getKey(), seen.get(one.getValue()))))
                                .toList(),
                        file.keys().stream().map(this::keyWords).toList()));
    }

    private String keyWords(SharedKey key) {
        return keys.find(key.name())
                .map(known -> known.colour().equals(key.colour())
                        ? "The shared key “%s” is there already, and the same.".formatted(key.name())
                        : "There is a shared key “%s” already, and it is another one: it is worn as it is here."
                                .formatted(key.name()))
                .orElse("The shared key “%s” comes with it.".formatted(key.name()));
    }

    /**
     * The dataset of most columns of the same names; among equals the one of the same name; null where none shares any.
     */
    private Long likely(DashboardFile.OfDataset of, SignedIn person) {
        Set<String> wanted = new LinkedHashSet<>();
        of.columns().forEach(c -> wanted.add(c.name()));
        Long best = null;
        double most = 0;
        for (DatasetService.Listed listed : datasets.all(person)) {
            Description said = datasets.description(listed.id()).orElse(null);
            if (said == null) continue;
            double shared = said.columnNames().stream().filter(wanted::contains).count()
                    + (said.name().equals(of.name()) ? 0.5 : 0);
            if (shared > most) {
                most = shared;
                best = listed.id();
            }
        }
        return best;
    }

    /**
     * A file that becomes a dashboard.
     *
     * @param title of the dashboard
     * @param onto by what the file calls its datasets
     */
    record Bring(JsonNode file, String title, Map<Long, DashboardFile.Onto> onto) {}

    @PostMapping("/api/dashboard-files")
    @ResponseStatus(HttpStatus.CREATED)
    DashboardApi.Made bring(@RequestBody Bring bring, @AuthenticationPrincipal SignedIn person) {
        DashboardFile file = read(bring.file());
        String title = bring.title() == null || bring.title().isBlank()
                ? file.document().dashboard().title()
                : bring.title().strip();
        Map<Long, DashboardFile.Onto> onto = new LinkedHashMap<>();
        (bring.onto() == null ? Map.<Long, DashboardFile.Onto>of() : bring.onto()).forEach((id, to) -> {
            if (id == null || to == null) throw new RefusedException("Say which dataset takes the place of which.");
            onto.put(id, new DashboardFile.Onto(to.dataset(), to.columns() == null ? Map.of() : to.columns()));
        });
        onto.values().forEach(to -> {
            if (datasets.description(to.dataset()).isEmpty()) throw RefusedException.gone("dataset");
        });
        long made = dashboards.keep(file.onto(onto, title), person).id();
        file.keys().stream().filter(key -> keys.find(key.name()).isEmpty()).forEach(key -> keys.keep(key, person));
        return new DashboardApi.Made(made, null);
    }

    private static DashboardFile read(JsonNode file) {
        if (file == null || file.isNull()) throw new RefusedException("Choose a dashboard's file.");
        return DashboardFile.read(file.toString());
    }
}
