package sarnik.finding;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Kinds;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.language.Language;
import sarnik.narrow.FilterScene;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;

@DisplayName("What a reader types to narrow a page")
class FinderTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 15);

    private static final LoadedDataset SALES = new LoadedDataset(
            1,
            "Sales",
            csv(
                    "town,product,day,litres,open,price,waits",
                    "Soria,still,2025-06-01,10,yes,0.5,2",
                    "Zamora,warm,2025-08-01,20,no,3,4",
                    "Ávila,sparkling,2026-02-01,30,yes,3.5,5",
                    "San Juan,still,2026-03-01,30,yes,2,6",
                    "still,warm,2026-03-02,30,no,1,7"),
            null,
            Map.of());
    private static final Datasets DATASETS = id -> Datasets.Found.of(Optional.of(SALES));

    private static final Dashboard DASHBOARD = DashboardDocument.parse("""
                    {"schema": 2, "title": "T", "pages": {"p1": {"title": "", "order": 1}}, "links": {},
                     "filters": {
                       "f1": {"type": "choice", "page": "p1", "order": 1, "dataset": 1, "column": "product", "title": "Product"},
                       "f2": {"type": "dates", "page": "p1", "order": 2, "dataset": 1, "column": "day", "title": "Day"},
                       "f3": {"type": "numbers", "page": "p1", "order": 3, "dataset": 1, "column": "litres", "title": "Litres"},
                       "f6": {"type": "numbers", "page": "p1", "order": 6, "dataset": 1, "column": "price", "title": "Price"},
                       "f7": {"type": "threshold", "page": "p1", "order": 7, "dataset": 1, "column": "waits", "title": "At a stop", "most": true},
                       "f4": {"type": "yesno", "page": "p1", "order": 4, "dataset": 1, "column": "open", "title": "Open"},
                       "f5": {"type": "rules", "page": "p1", "order": 5, "dataset": 1, "title": "Only",
                              "rules": {"r1": {"name": "Large sales", "order": 1, "rule": {"is": "SQL", "text": "litres > 20"}}}}},
                     "visuals": {"v1": {"type": "bars", "page": "p1", "at": {"x": 0, "y": 0, "w": 8, "h": 6}, "title": "By town",
                                        "dataset": 1, "category": "town", "measure": {"summary": "COUNT"}}}}
                    """).dashboard();

    private static Finder.Found find(String words, String state) {
        return new Finder(
                        DASHBOARD,
                        Kinds.ALL,
                        new FilterScene(TODAY, DATASETS, new InMemoryEngine()),
                        DASHBOARD.firstPage())
                .read(
                        words,
                        StateReader.read(state, DASHBOARD, DATASETS, Kinds.ALL).state());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "warm | f.f1=warm",
                "still and warm | f.f1=still,warm",
                "sparkling, Soria and Zamora, since June | f.f1=sparkling&f.f2=2025-06-01..&p.v1=Soria,Zamora",
                "since Junne | f.f2=2025-06-01..",
                "avila | p.v1=%C3%81vila",
                "san juan in 2026 | f.f2=2026-01-01..2026-12-31&p.v1=San%20Juan",
                "last 30 days | f.f2=~last.30.day",
                "last month | f.f2=~before.month",
                "the year to date | f.f2=~todate.year",
                "June 2025 to August 2025 | f.f2=2025-06-01..2025-08-31",
                "June to August | f.f2=2025-06-01..2025-08-31",
                "November to February | f.f2=2025-11-01..2026-02-28",
                "February to November | f.f2=2025-02-01..2025-11-30",
                "from 29 June to 5 March | f.f2=2025-06-29..2026-03-05",
                "December 2026 to February | f.f2=2026-12-01..2027-02-28",
                "until 3 March 2026 | f.f2=..2026-03-03",
                "before March | f.f2=..2026-02-28",
                "litres over 15 | f.f3=16..",
                "litres at least 15 | f.f3=15..",
                "litres less than 15, warm | f.f1=warm&f.f3=..14",
                "litres over 12.5 | f.f3=12.5..",
                "litres over 1,000; warm | f.f1=warm&f.f3=1001..",
                "litres at most 12,345.5 | f.f3=..12345.5",
                "litres at most 1 000 | f.f3=..1000",
                "warm,still | f.f1=still,warm",
                "price over 3 | f.f6=3..",
                "at a stop under 4 | f.f7=3",
                "2025,2026 | f.f2=2026-01-01..2026-12-31",
                "Litres at most 12.5 | f.f3=..12.5",
                "open yes | f.f4=yes",
                "large sales with warm | f.f1=warm&f.f5=r1",
            })
    void isUnderstood(String words, String state) {
        Finder.Found found = find(words, "");
        assertThat(found.state()).isEqualTo(state);
        assertThat(found.missed()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "es | sparkling en Soria y Zamora desde junio | f.f1=sparkling&f.f2=2025-06-01..&p.v1=Soria,Zamora",
                "es | los últimos 30 días | f.f2=~last.30.day",
                "es | el mes pasado | f.f2=~before.month",
                "es | entre el 3 de junio de 2025 y el 5 de agosto de 2025 | f.f2=2025-06-03..2025-08-05",
                "es | litres más de 15 | f.f3=16..",
                "es | litres más de 1.000 | f.f3=1001..",
                "es | litres como máximo 1,5 | f.f3=..1.5",
                "pt | warm desde junho | f.f1=warm&f.f2=2025-06-01..",
                "pt | as últimas 2 semanas | f.f2=~last.2.week",
                "pt | até 3 de março de 2026 | f.f2=..2026-03-03",
                "pt | litres no máximo 12.5 | f.f3=..12.5",
                "fr | warm avec Zamora depuis juin | f.f1=warm&f.f2=2025-06-01..&p.v1=Zamora",
                "fr | les 30 derniers jours | f.f2=~last.30.day",
                "fr | du 3 juin 2025 au 5 août 2025 | f.f2=2025-06-03..2025-08-05",
                "fr | cette année | f.f2=~this.year",
                "fr | litres au plus 1 000,5 | f.f3=..1000.5",
                "fr | avant mars | f.f2=..2026-02-28",
                "de | warm und still seit Juni | f.f1=still,warm&f.f2=2025-06-01..",
                "de | die letzten 3 Monate | f.f2=~last.3.month",
                "de | letzten Monat | f.f2=~before.month",
                "de | vom 3. Juni 2025 bis 5. August 2025 | f.f2=2025-06-03..2025-08-05",
                "de | bis 3. März 2026 | f.f2=..2026-03-03",
                "de | litres über 15 | f.f3=16..",
                "de | litres mindestens 12.345,5, warm | f.f1=warm&f.f3=12345.5..",
                "de | since June | f.f2=2025-06-01..",
            })
    void isUnderstoodInTheLanguageOfTheReader(String tag, String words, String state) {
        Finder.Found found = Language.in(new Language(tag, sentence -> null), () -> find(words, ""));
        assertThat(found.state()).isEqualTo(state);
        assertThat(found.missed()).isEmpty();
    }

    /** A filter holds its bounds in; where that is not what was typed it is said. */
    @ParameterizedTest
    @CsvSource({"price over 3, with 3 itself", "price at least 3, ''", "litres over 15, ''"})
    void aBoundThatIsKeptAsWellIsSaid(String words, String note) {
        assertThat(find(words, "").understood())
                .singleElement()
                .satisfies(one -> assertThat(one.note()).isEqualTo(note));
    }

    /** A bound on one side is none on the other. */
    @Test
    void aBoundOfTheOtherSideIsNotUnderstood() {
        Finder.Found found = find("at a stop over 4", "");
        assertThat(found.understood()).isEmpty();
        assertThat(found.state()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"sparkilng, sparkling, f.f1=sparkling", "Zamorra, zamora, p.v1=Zamora", "wamr, warm, f.f1=warm"})
    void slipsAreForgivenAndSaid(String words, String taken, String state) {
        Finder.Found found = find(words, "");
        assertThat(found.state()).isEqualTo(state);
        assertThat(found.understood().get(0).note()).isEqualTo("taken for “" + taken + "”");
    }

    @Test
    void ofAWordWithSeveralMeaningsTheOthersAreGiven() {
        Finder.Understood still = find("still", "").understood().get(0);
        assertThat(still.words()).isEqualTo("Product: still");
        assertThat(still.others())
                .singleElement()
                .isEqualTo(new Finder.Other("still, picked on By town", "p.v1=still"));
    }

    @Test
    void whatMeansNothingIsSaidAndTheRestHolds() {
        Finder.Found found = find("bananas, warm xyzzy", "");
        assertThat(found.missed()).containsExactly("bananas", "xyzzy");
        assertThat(found.state()).isEqualTo("f.f1=warm");
    }

    @Test
    void aMonthWithoutAYearIsOneThatHasRowsAndThatIsSaid() {
        assertThat(find("June", "").understood().get(0).note()).isEqualTo("taken as June 2025");
        assertThat(find("March", "").state()).isEqualTo("f.f2=2026-03-01..2026-03-31");
    }

    @Test
    void whatWasChosenBeforeStaysUnlessItIsSaidAnew() {
        assertThat(find("Soria", "f.f1=warm").state()).isEqualTo("f.f1=warm&p.v1=Soria");
        assertThat(find("still", "f.f1=warm").state()).isEqualTo("f.f1=still");
    }

    @Test
    void nothingMakesItFail() {
        for (String odd : List.of(
                "", " , ;; ", "since", "from to", "litres over", "32 June 2025", "\u0000", "last 0 days", "((("))
            assertThat(find(odd, "").state()).as(odd).isIn("", "f.f2=~last.1.day", "f.f2=2025-06-01..2025-06-30");
    }

    @Test
    void aMeaningIsFoundAmongAHundredThousandValues() {
        LoadedDataset many = new LoadedDataset(
                1,
                "Many",
                csv(IntStream.rangeClosed(0, 100_000)
                        .mapToObj(i -> i == 0 ? "product" : "thing " + i)
                        .toArray(String[]::new)),
                null,
                Map.of());
        Dashboard dashboard = DashboardDocument.parse("""
                        {"schema": 2, "title": "T", "pages": {"p1": {"title": "", "order": 1}}, "links": {}, "visuals": {},
                         "filters": {"f1": {"type": "choice", "page": "p1", "order": 1, "dataset": 1, "column": "product", "title": ""}}}
                        """).dashboard();
        Datasets datasets = id -> Datasets.Found.of(Optional.of(many));
        Finder finder = new Finder(dashboard, Kinds.ALL, new FilterScene(TODAY, datasets, new InMemoryEngine()), "p1");
        assertThat(finder.read("thing 77777", ReaderState.NOTHING).state()).isEqualTo("f.f1=thing%2077777");
        assertThat(finder.read("thimg 5", ReaderState.NOTHING)
                        .understood()
                        .get(0)
                        .words())
                .isEqualTo("product: thing 5");
    }
}
