package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.finding.Finder;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.Narrowing;
import sarnik.narrow.ValueCounts;
import sarnik.query.QueryException;
import sarnik.reading.OnceDatasets;
import sarnik.reading.ReadPage;
import sarnik.sql.Engines;

/** Answers what the filters of a dashboard offer. */
@Service
class FilterService {

    private static final int LONGEST = 200;

    private final Answerer answerer = new Answerer(new Engines());

    private ReadPage page(Reading reading) {
        return reading.page(reading.datasets(), answerer);
    }

    /** What each filter offers to choose from, by the datasets that are there. */
    Map<String, FilterOffer> offers(Reading reading, Datasets there) {
        return reading.page(there, answerer).offers();
    }

    /** By visual on which something can be picked: what tells the column of its picks, and all that mean the same. */
    Map<String, String> meanings(Reading reading, Datasets there) {
        return Narrowing.meanings(reading.dashboard(), Kinds.ALL, OnceDatasets.of(there));
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
            throw new RefusedException(HttpStatus.NOT_FOUND, phrase("This filter has been taken away."));
        if (asked.find() != null && asked.find().length() > LONGEST)
            throw new RefusedException(phrase("At most {0} characters are looked for.", LONGEST));
        try {
            return page(reading).values(asked.state(), asked.filter(), asked.find());
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
            throw new RefusedException(phrase("Up to {0} characters are read.", LONGEST * 2));
        return page(reading).find(asked.state(), asked.words());
    }
}
