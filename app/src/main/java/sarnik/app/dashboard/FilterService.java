package sarnik.app.dashboard;

import java.time.LocalDate;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.finding.Finder;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.narrow.Narrowing;
import sarnik.narrow.ValueCounts;
import sarnik.query.InMemoryEngine;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Value;

/** Answers what the filters of a dashboard offer. */
@Service
class FilterService {

    private static final int LONGEST = 200;

    private final QueryEngine engine = new InMemoryEngine();

    /** What each filter offers to choose from. */
    Map<String, FilterOffer> offers(Reading reading) {
        Dashboard dashboard = reading.dashboard();
        FilterScene scene = new FilterScene(LocalDate.now(), OnceDatasets.of(reading.datasets(), dashboard), engine);
        Map<String, FilterOffer> offers = new LinkedHashMap<>();
        for (String page : dashboard.pageIds())
            for (String id : dashboard.filtersOf(page))
                offers.computeIfAbsent(
                        id, of -> FilterOffer.of(dashboard.filters().get(of), scene, Kinds.ALL));
        return offers;
    }

    /** By visual on which something can be picked: what tells the column of its picks, and all that mean the same. */
    Map<String, String> meanings(Reading reading) {
        return Narrowing.meanings(reading.dashboard(), Kinds.ALL, OnceDatasets.of(reading.datasets()));
    }

    /** By visual on which something can be picked: the dataset and the column of its picks, as addresses have them. */
    Map<String, String> sources(Dashboard dashboard) {
        Map<String, String> sources = new LinkedHashMap<>();
        dashboard
                .visuals()
                .forEach((id, visual) -> Kinds.ALL
                        .of(visual)
                        .picks(visual)
                        .ifPresent(source -> sources.put(id, source.dataset() + "." + source.column())));
        return sources;
    }

    /**
     * The values of a filter.
     *
     * @param state a reader state's text form
     * @param filter its id
     * @param find what a value has to hold; null for all
     */
    record AskedValues(String state, String filter, String find) {}

    ValueCounts values(Reading reading, AskedValues asked) {
        Dashboard dashboard = reading.dashboard();
        if (asked.filter() == null || !dashboard.filters().containsKey(asked.filter()))
            throw new RefusedException(HttpStatus.NOT_FOUND, "This filter has been taken away.");
        if (asked.find() != null && asked.find().length() > LONGEST)
            throw new RefusedException("At most %d characters are looked for.".formatted(LONGEST));
        OnceDatasets.Read read = OnceDatasets.read(reading, asked.state());
        Datasets once = read.datasets();
        ReaderState state = read.state();
        FilterOffer offer = FilterOffer.of(
                dashboard.filters().get(asked.filter()), new FilterScene(LocalDate.now(), once, engine), Kinds.ALL);
        Set<String> chosen = new HashSet<>(state.get(Part.FILTER, asked.filter(), Value.Choice.class)
                .map(Value.Choice::values)
                .orElse(List.of()));
        try {
            return ValueCounts.of(
                            dashboard,
                            new Narrowing(dashboard, state, once, Kinds.ALL, LocalDate.now(), engine),
                            engine,
                            asked.filter(),
                            asked.find() == null ? "" : asked.find(),
                            chosen,
                            offer)
                    .orElseThrow(() -> new RefusedException("This filter has no values to choose from."));
        } catch (MisfitException | QueryException unfit) {
            throw new RefusedException(unfit.getMessage());
        }
    }

    /**
     * Words that a reader types to narrow a page.
     *
     * @param state a reader state's text form
     */
    record AskedWords(String state, String words) {}

    Finder.Found find(Reading reading, AskedWords asked) {
        Dashboard dashboard = reading.dashboard();
        if (asked.words() == null || asked.words().length() > LONGEST * 2)
            throw new RefusedException("Up to %d characters are read.".formatted(LONGEST * 2));
        OnceDatasets.Read read = OnceDatasets.read(reading, asked.state());
        Datasets once = read.datasets();
        ReaderState state = read.state();
        Narrowing narrowing = new Narrowing(dashboard, state, once, Kinds.ALL, LocalDate.now(), engine);
        return new Finder(dashboard, Kinds.ALL, new FilterScene(LocalDate.now(), once, engine), narrowing.page())
                .read(asked.words(), state);
    }
}
