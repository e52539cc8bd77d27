package sarnik.app.dataset;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.place.Decisions;
import sarnik.place.Gazetteer;
import sarnik.place.Place;
import sarnik.place.Words;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what people have decided about words that placing was not sure of. */
@Service
class PlacingService {

    private final PlacingDecisionRepository decisions;
    private final DatasetRepository datasets;
    private final JsonMapper mapper;

    PlacingService(PlacingDecisionRepository decisions, DatasetRepository datasets, JsonMapper mapper) {
        this.decisions = decisions;
        this.datasets = datasets;
        this.mapper = mapper;
    }

    /** What is decided for a dataset; decisions for places that the gazetteer no longer has are passed over. */
    @Transactional(readOnly = true)
    public Decisions of(long dataset) {
        return of(frozen(dataset));
    }

    /** What is decided for a dataset, to be kept as it is now. */
    @Transactional(readOnly = true)
    public List<FrozenDataset.Decided> frozen(long dataset) {
        Map<Words, String> places = new LinkedHashMap<>();
        // What the dataset itself has decided comes last and so holds.
        Stream.concat(
                        decisions.findBySharedTrueOrderByDecidedAt().stream(),
                        decisions.findByDatasetId(dataset).stream())
                .forEach(d -> places.put(mapper.readValue(d.getWords(), Words.class), d.getPlace()));
        return places.entrySet().stream()
                .map(d -> new FrozenDataset.Decided(d.getKey(), d.getValue()))
                .toList();
    }

    /** What was decided; places that the gazetteer no longer has are passed over. */
    static Decisions of(List<FrozenDataset.Decided> decided) {
        Map<Words, Optional<Place>> places = new HashMap<>();
        for (FrozenDataset.Decided one : decided) {
            Optional<Place> place =
                    Optional.ofNullable(one.place()).flatMap(id -> Decisions.place(id, Gazetteer.shipped()));
            if (place.isPresent() || one.place() == null) places.put(one.words(), place);
        }
        return new Decisions(places);
    }

    /**
     * Decides.
     *
     * @param places a place's id for each set of words; null leaves its rows out
     * @param shared whether it holds for other datasets too
     * @throws RefusedException when there is no such place; then nothing is decided
     */
    @Transactional
    public void decide(long dataset, Map<Words, String> places, boolean shared, SignedIn person) {
        count(dataset, shared);
        for (String place : places.values()) {
            if (place != null && Decisions.place(place, Gazetteer.shipped()).isEmpty()) {
                throw new RefusedException("There is no place “" + place
                        + "”. Choose one from the list, search for it, or press the map where it lies.");
            }
        }
        Map<String, PlacingDecision> before = new HashMap<>();
        decisions.findByDatasetId(dataset).forEach(d -> before.put(d.getWords(), d));
        List<PlacingDecision> made = new ArrayList<>();
        places.forEach((words, place) -> {
            String key = mapper.writeValueAsString(words);
            PlacingDecision decision = before.getOrDefault(key, new PlacingDecision(dataset, key));
            decision.decide(place, shared, person.id(), Clock.systemUTC().instant());
            made.add(decision);
        });
        decisions.saveAll(made);
    }

    /** Rows are placed anew from then on: what is in memory is found by this count. */
    private void count(long dataset, boolean shared) {
        if (shared) datasets.countDecisionForAll();
        else datasets.countDecision(dataset);
    }

    /** Takes decisions back. */
    @Transactional
    public void forget(long dataset, Collection<Words> words, boolean shared) {
        count(dataset, shared);
        words.forEach(each -> decisions
                .findByDatasetIdAndWords(dataset, mapper.writeValueAsString(each))
                .ifPresent(decisions::delete));
    }
}
