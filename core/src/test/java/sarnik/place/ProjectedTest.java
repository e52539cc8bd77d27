package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.locationtech.proj4j.BasicCoordinateTransform;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.ProjCoordinate;
import sarnik.format.BoundaryFiles;
import sarnik.geo.AreaFinder;
import sarnik.geo.GreatCircle;
import sarnik.geo.Projection;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("Projected coordinates")
class ProjectedTest {

    private static final String[][] TOWNS = {
        {"Soria", "Soria", "Spain", "-2.46883", "41.76401"},
        {"Zamora", "Zamora", "Spain", "-5.74456", "41.50633"},
        {"Teruel", "Teruel", "Spain", "-1.10646", "40.3456"},
        {"Lugo", "Lugo", "Spain", "-7.55602", "43.00992"},
        {"Córdoba", "Córdoba", "Spain", "-4.77275", "37.89155"},
        {"Girona", "Girona", "Spain", "2.82493", "41.98311"}
    };

    private static double[] at(int epsg) {
        return at(epsg, epsg);
    }

    /** Where the numbers of the first town in one system lie when they are read in another. */
    private static double[] at(int read, int written) {
        double[] there = Projection.ofEpsg(written)
                .orElseThrow()
                .fromDegrees(Double.parseDouble(TOWNS[0][3]), Double.parseDouble(TOWNS[0][4]));
        return Projection.ofEpsg(read).orElseThrow().toDegrees(there[0], there[1]);
    }

    /** The towns in a projected system, as another would have written them. */
    private static Table projected(int epsg, boolean named, boolean swapped) {
        CRSFactory factory = new CRSFactory();
        var transform = new BasicCoordinateTransform(
                factory.createFromParameters("d", "+proj=longlat +datum=WGS84 +no_defs"),
                factory.createFromName("EPSG:" + epsg));
        List<String> lines = new ArrayList<>(List.of(named ? "town,province,country,x,y" : "note,x,y"));
        for (String[] town : TOWNS) {
            ProjCoordinate at = transform.transform(
                    new ProjCoordinate(Double.parseDouble(town[3]), Double.parseDouble(town[4])), new ProjCoordinate());
            double first = swapped ? at.y : at.x;
            double second = swapped ? at.x : at.y;
            lines.add((named ? town[0] + "," + town[1] + "," + town[2] : "n")
                    + String.format(Locale.ROOT, ",%.1f,%.1f", first, second));
        }
        return TestTables.csv(lines.toArray(String[]::new));
    }

    @ParameterizedTest(name = "EPSG:{0}")
    @CsvSource({"25830", "25829", "3857", "3035"})
    void areGuessedFromTheirRangeAndFromWhatTheRowsName(int epsg) {
        Placing.ByCoordinates guess = (Placing.ByCoordinates) new PlacingGuess(Gazetteer.shipped())
                .guess(projected(epsg, true, false))
                .orElseThrow();
        assertThat(guess).isEqualTo(new Placing.ByCoordinates("y", "x", epsg, guess.alike()));
        // Towns tell zones apart, not the older datum of the same grid: that is asked.
        double[] first = at(epsg);
        for (int alike : guess.alike() == null ? List.<Integer>of() : guess.alike()) {
            assertThat(GreatCircle.metres(at(alike, epsg)[0], at(alike, epsg)[1], first[0], first[1]))
                    .as("EPSG:" + alike)
                    .isLessThan(2000);
        }
    }

    @ParameterizedTest(name = "turned {0}")
    @CsvSource({"false", "true"})
    void placeRowsInDegrees(boolean turned) {
        Table table = projected(25830, true, turned);
        PlacedTable placed =
                new TablePlacer(Gazetteer.shipped()).byCoordinates(table, new Placing.ByCoordinates("y", "x", 25830));
        for (int row = 0; row < TOWNS.length; row++) {
            Match match = placed.match(row);
            assertThat(match.state()).isEqualTo(Match.State.PLACED);
            assertThat(match.place().lon()).isCloseTo(Double.parseDouble(TOWNS[row][3]), within(1e-4));
            assertThat(match.place().lat()).isCloseTo(Double.parseDouble(TOWNS[row][4]), within(1e-4));
            assertThat(match.reason().contains("other way round")).isEqualTo(turned);
        }
    }

    @Test
    void thatCannotBeReadOrLieOutsideAreUnplaced() {
        Table table = TestTables.csv("x,y,n", "abc,4600000,1", ",4600000,2", "545000,4624000,3");
        PlacedTable placed =
                new TablePlacer(Gazetteer.shipped()).byCoordinates(table, new Placing.ByCoordinates("y", "x", 25830));
        assertThat(placed.match(0).state()).isEqualTo(Match.State.UNPLACED);
        assertThat(placed.match(1).reason()).contains("missing");
        assertThat(placed.match(2).state()).isEqualTo(Match.State.PLACED);
    }

    @Test
    void inASystemThatIsNotKnownAreRefused() {
        assertThatThrownBy(() -> new TablePlacer(Gazetteer.shipped())
                        .byCoordinates(TestTables.csv("x,y", "1,2"), new Placing.ByCoordinates("y", "x", 99999)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("99999");
    }

    @Test
    void thatFitSeveralSystemsAreInDoubtUntilSomebodySaysWhichItIs() {
        Placing.ByCoordinates guess = (Placing.ByCoordinates) new PlacingGuess(Gazetteer.shipped())
                .guess(projected(25830, false, false))
                .orElseThrow();
        assertThat(guess.alike()).as("nothing tells the zones apart").isNotEmpty();
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).byCoordinates(projected(25830, false, false), guess);
        assertThat(placed.rows(Match.State.PLACED)).isZero();
        assertThat(placed.match(0).reason()).contains("but also").contains("Choose the system");
        assertThat(placed.match(0).runnersUp()).as("where it would lie").isNotEmpty();
        PlacedTable decided = new TablePlacer(Gazetteer.shipped())
                .byCoordinates(projected(25830, false, false), new Placing.ByCoordinates("y", "x", 25830));
        assertThat(decided.rows(Match.State.PLACED)).isEqualTo(TOWNS.length);
    }

    @Test
    void areGuessedAnywhereInTheWorldByWhatTheRowsName() {
        // The Swiss national grid of 1995: eastings about 2,600,000, northings about 1,200,000.
        Table swiss = TestTables.csv(
                "town,country,E,N",
                "Bern,Switzerland,2600668,1199657",
                "Zürich,Switzerland,2683111,1247955",
                "Genève,Switzerland,2500532,1117325",
                "Basel,Switzerland,2611220,1267503",
                "Lausanne,Switzerland,2538200,1152400");
        Placing.ByCoordinates guess = (Placing.ByCoordinates)
                new PlacingGuess(Gazetteer.shipped()).guess(swiss).orElseThrow();
        assertThat(guess.epsg()).isEqualTo(2056);
        assertThat(guess.alike()).isNull();
    }

    @Test
    void areNotGuessedWhereNoSystemMakesSense() {
        assertThat(new PlacingGuess(Gazetteer.shipped()).guess(TestTables.csv("x,y", "99999,1", "88888,2", "77777,5")))
                .isEmpty();
    }

    @Test
    void countriesAreKnownByTheirNumbersToo() {
        assertThat(Gazetteer.shipped().byCode("724").orElseThrow().name()).isEqualTo("Spain");
        assertThat(Gazetteer.shipped().byCode("620").orElseThrow().country()).isEqualTo("PT");
        assertThat(Gazetteer.shipped().byCode("000")).isEmpty();
    }

    @Test
    void rowsInTheSeaArePointedOut() {
        Land land = Land.of(new AreaFinder(BoundaryFiles.shipped(BoundaryFiles.Shipped.COUNTRIES)), 0.1);
        Table table =
                TestTables.csv("lat,lon,n", "41.764,-2.469,1", "36.30,-4.20,2", "43.37,-8.396,3", "28.10,-15.43,4");
        PlacedTable placed = new TablePlacer(Gazetteer.shipped(), Decisions.NONE, land, Watch.NONE)
                .byCoordinates(table, new Placing.ByCoordinates("lat", "lon"));
        assertThat(placed.match(1).state()).as("between Málaga and Morocco").isEqualTo(Match.State.DOUBTFUL);
        assertThat(placed.match(1).reason()).contains("in the sea");
        for (int row : new int[] {0, 2, 3})
            assertThat(placed.match(row).state()).as("on the coast or inland").isEqualTo(Match.State.PLACED);
    }

    @Test
    void rowsFarOutsideTheRestArePointedOut() {
        List<String> lines = new ArrayList<>(List.of("lat,lon"));
        for (int i = 0; i < 30; i++)
            lines.add(String.format(Locale.ROOT, "%.3f,%.3f", 41.5 + i * 0.01, -2.5 - i * 0.01));
        lines.add("52.52,13.405");
        PlacedTable placed = new TablePlacer(Gazetteer.shipped())
                .byCoordinates(TestTables.csv(lines.toArray(String[]::new)), new Placing.ByCoordinates("lat", "lon"));
        assertThat(placed.match(30).state()).isEqualTo(Match.State.DOUBTFUL);
        assertThat(placed.match(30).reason()).contains("far outside the rest");
        assertThat(placed.rows(Match.State.PLACED)).isEqualTo(30);
    }
}
