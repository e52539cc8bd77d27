package sarnik.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sarnik.format.BoundaryFiles;
import sarnik.format.TableFile;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.PlacingGuess;
import sarnik.place.TablePlacer;
import sarnik.table.ColumnType;
import sarnik.table.CsvFile;
import sarnik.table.FileChoices;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;

@DisplayName("The demo network")
class DemoNetworkTest {

    private static final DemoNetwork NETWORK = DemoNetwork.shipped();

    @TempDir
    private Path directory;

    private Table kiosks() throws Exception {
        DemoFiles.kiosks(NETWORK, directory.resolve("kiosks.csv"));
        return new TableReader()
                .read(CsvFile.open(directory.resolve("kiosks.csv"), FileChoices.NONE), Shaping.NONE)
                .table();
    }

    @Test
    void theSameSeedWritesTheSameBytes() throws Exception {
        for (String name : List.of("a", "b")) {
            DemoNetwork network = DemoNetwork.shipped();
            DemoFiles.kiosks(network, directory.resolve(name + "-kiosks.csv"));
            DemoFiles.refills(network, 5000, directory.resolve(name + "-refills.csv"));
        }
        assertThat(directory.resolve("a-kiosks.csv")).hasSameBinaryContentAs(directory.resolve("b-kiosks.csv"));
        assertThat(directory.resolve("a-refills.csv")).hasSameBinaryContentAs(directory.resolve("b-refills.csv"));
        assertThat(new DemoNetwork(7, 620, 900).kiosks()).isNotEqualTo(NETWORK.kiosks());
    }

    @Test
    void kiosksHaveTheSizeAndTheColumnsThatAreDescribed() throws Exception {
        Table kiosks = kiosks();
        assertThat(kiosks.rows()).isEqualTo(900);
        assertThat(kiosks.names())
                .containsExactly(
                        "code",
                        "name",
                        "town",
                        "province",
                        "country",
                        "longitude",
                        "latitude",
                        "model",
                        "opened",
                        "status",
                        "wheelchair access",
                        "phone");
        assertThat(kiosks.column("phone").type()).as("leading zeros are kept").isEqualTo(ColumnType.TEXT);
        assertThat(kiosks.column("opened").type()).isEqualTo(ColumnType.DATE);
        long located = java.util.stream.IntStream.range(0, 900)
                .filter(r -> !kiosks.column("latitude").isMissing(r))
                .count();
        assertThat(located).as("about a third carry coordinates").isBetween(240L, 360L);
    }

    @Test
    void theWordsOfKiosksArePlacedButForTheOddOnes() throws Exception {
        Table kiosks = kiosks();
        Placing.ByName guess = (Placing.ByName)
                new PlacingGuess(Gazetteer.shipped()).guess(kiosks).orElseThrow();
        assertThat(guess).isEqualTo(new Placing.ByName("town", "province", "country"));
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).byName(kiosks, guess);
        assertThat(placed.rows(Match.State.UNPLACED))
                .as("two towns that exist nowhere, one row without a town")
                .isEqualTo(3);
        assertThat(placed.rows(Match.State.PLACED)).isGreaterThan(880);
    }

    @Test
    void theOdditiesAreThere() {
        List<Kiosk> kiosks = NETWORK.kiosks();
        assertThat(kiosks.stream()
                        .map(Kiosk::province)
                        .filter(DemoNetwork.ALAVA::contains)
                        .collect(Collectors.toSet()))
                .as("one province spelled several ways")
                .hasSizeGreaterThan(1);
        assertThat(kiosks).extracting(Kiosk::phone).allMatch(p -> p.startsWith("0"));
        assertThat(kiosks)
                .filteredOn(k -> k.pull() == 0)
                .as("kiosks without sales")
                .hasSizeGreaterThan(10);
        Map<String, Set<String>> provincesOf = new HashMap<>();
        kiosks.forEach(
                k -> provincesOf.computeIfAbsent(k.town(), t -> new HashSet<>()).add(k.province()));
        assertThat(provincesOf.values())
                .as("namesakes")
                .anyMatch(p -> p.size() > 1 && !DemoNetwork.ALAVA.containsAll(p));
    }

    @Test
    void oneTownSellsFarMoreThanTheOthers() {
        Map<String, Integer> sales = new HashMap<>();
        Refills refills = new Refills(NETWORK);
        refills.make(
                100_000,
                (kiosk, day, product, litres, takings, state) -> sales.merge(refills.town(kiosk), 1, Integer::sum));
        List<Integer> sorted = new ArrayList<>(sales.values());
        sorted.sort(null);
        int median = sorted.get(sorted.size() / 2);
        assertThat(sales.get(DemoNetwork.OUTLIER)).isGreaterThan(40 * median);
    }

    @Test
    void refillsComeInOrderInTheNumberAskedForAndHaveASeason() {
        for (int rows : new int[] {1, 999, 20_000}) {
            int[] seen = new int[2];
            new Refills(NETWORK).make(rows, (kiosk, day, product, litres, takings, state) -> {
                assertThat(day).isGreaterThanOrEqualTo(seen[1]);
                seen[0]++;
                seen[1] = day;
            });
            assertThat(seen[0]).isEqualTo(rows);
        }
        int[] months = new int[13];
        int[] provisional = new int[2];
        new Refills(NETWORK).make(50_000, (kiosk, day, product, litres, takings, state) -> {
            assertThat(litres).isBetween(0.0, 400.0);
            LocalDate date = LocalDate.ofEpochDay(day);
            assertThat(date).isBetween(Refills.FIRST_DAY, Refills.LAST_DAY);
            months[date.getMonthValue()]++;
            if (state == 1) provisional[date.isAfter(Refills.LAST_DAY.minusDays(21)) ? 0 : 1]++;
        });
        assertThat(months[7]).isGreaterThan(2 * months[1]);
        assertThat(provisional[0]).isPositive();
        assertThat(provisional[1])
                .as("only the last three weeks are provisional")
                .isZero();
    }

    @Test
    void kiosksWithoutSalesSellNothing() {
        Set<Integer> selling = new HashSet<>();
        new Refills(NETWORK).make(100_000, (kiosk, day, product, litres, takings, state) -> selling.add(kiosk));
        assertThat(selling).allMatch(k -> NETWORK.kiosks().get(k).pull() > 0);
    }

    @Test
    void drawingByWeightFollowsTheWeights() {
        double[] sums = Draw.sums(new double[] {1, 0, 3});
        assertThat(sums).containsExactly(1, 1, 4);
        assertThat(Draw.index(sums, 0)).isZero();
        assertThat(Draw.index(sums, 0.99)).isZero();
        assertThat(Draw.index(sums, 1.5)).isEqualTo(2);
        assertThat(Draw.index(sums, 4)).as("the edge stays inside").isEqualTo(2);
        assertThat(Arrays.stream(new double[] {0.5, 2, 3.9})
                        .mapToInt(at -> Draw.index(sums, at))
                        .toArray())
                .containsExactly(0, 2, 2);
    }

    @Test
    void cellsWithCommasAreQuoted() throws Exception {
        DemoFiles.kiosks(NETWORK, directory.resolve("k.csv"));
        assertThat(Files.readAllLines(directory.resolve("k.csv")))
                .allMatch(line -> line.split(",(?=(?:[^\"]*\"[^\"]*\")*[^\"]*$)", -1).length == 12);
    }

    private Reading read(String name) throws Exception {
        return new TableReader()
                .read(TableFile.open(directory.resolve(name), FileChoices.NONE).rows(), Shaping.NONE);
    }

    @Test
    void complaintsHaveTheirOddities() throws Exception {
        new DemoTables(NETWORK).complaints(directory.resolve("complaints.csv"));
        Reading reading = read("complaints.csv");
        Table table = reading.table();
        assertThat(table.rows()).as("52 provinces, 104 weeks, no total").isEqualTo(52 * 104);
        assertThat(table.names()).as("letters of Windows-1252").contains("0-14 años", "65 y más");
        assertThat(table.column("por 10.000").type()).as("decimal comma").isEqualTo(ColumnType.DECIMAL);
        assertThat(table.column("semana").type()).isEqualTo(ColumnType.DATE);
        assertThat(reading.missingWords()).containsEntry("-", 52L * 3).containsEntry("n/a", 52L * 2);
        assertThat(reading.troubles().first()).anyMatch(t -> t.why().contains("total"));
        PlacedTable placed = new TablePlacer(Gazetteer.shipped())
                .byArea(table, "provincia", BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES));
        assertThat(placed.rows(Match.State.PLACED)).as("lost zeros are mended").isEqualTo(table.rows());
    }

    @Test
    void suppliersInFortyCountriesArePlacedByWhatStandsInTheirRows() throws Exception {
        Suppliers.write(directory.resolve("suppliers.csv"));
        Table suppliers = read("suppliers.csv").table();
        assertThat(suppliers.column("since").type()).isEqualTo(ColumnType.DATE);
        assertThat(suppliers.column("bought last year").type()).isEqualTo(ColumnType.DECIMAL);
        Placing guess = new PlacingGuess(Gazetteer.shipped()).guess(suppliers).orElseThrow();
        assertThat(guess).isEqualTo(new Placing.ByName("city", "state", "country"));
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).by(suppliers, guess);
        int countries = 0;
        Set<String> seen = new HashSet<>();
        for (Place place : placed.places().values()) if (seen.add(place.country())) countries++;
        assertThat(countries).isGreaterThanOrEqualTo(40);
        assertThat(placed.rows(Match.State.PLACED)).isGreaterThan(suppliers.rows() * 95 / 100);
        // What the generator knows: towns are those of the country's list, states those that are written.
        for (int row = 0; row < suppliers.rows(); row++) {
            String city = suppliers.column("city").text(row);
            Match match = placed.match(row);
            if (city != null && (city.equals("Mirage Falls") || city.startsWith("Quellbrunn")))
                assertThat(match.state()).as(city).isNotEqualTo(Match.State.PLACED);
            if ("Portland".equals(city))
                assertThat(match.place().region())
                        .isEqualTo("US." + suppliers.column("state").text(row));
            if ("London".equals(city) && "ON".equals(suppliers.column("state").text(row)))
                assertThat(match.place().country()).isEqualTo("CA");
        }
    }

    @Test
    void theOtherTablesComeInAndAreGuessedAsTheyShould() throws Exception {
        DemoTables tables = new DemoTables(NETWORK);
        tables.probes(directory.resolve("probes.geojson"));
        tables.cartridges(directory.resolve("cartridges.xlsx"));
        tables.rounds(directory.resolve("rounds.csv"));
        tables.visits(directory.resolve("visits.ndjson"));
        PlacingGuess guess = new PlacingGuess(Gazetteer.shipped());
        TablePlacer placer = new TablePlacer(Gazetteer.shipped());

        Table probes = read("probes.geojson").table();
        assertThat(probes.rows()).isEqualTo(120);
        PlacedTable placedProbes = placer.by(probes, guess.guess(probes).orElseThrow());
        assertThat(placedProbes.rows(Match.State.DOUBTFUL)).as("two at 0, 0").isEqualTo(2);

        Table cartridges = read("cartridges.xlsx").table();
        assertThat(cartridges.rows()).isEqualTo(2400);
        assertThat(cartridges.names())
                .containsExactly("month", "depot", "destination", "Sent · pieces", "Sent · boxes", "label");
        assertThat(cartridges.column("month").type()).isEqualTo(ColumnType.DATE);
        assertThat(guess.guess(cartridges).orElseThrow())
                .isEqualTo(new Placing.FromTo(new Placing.ByWords("depot"), new Placing.ByWords("destination")));

        Table rounds = read("rounds.csv").table();
        assertThat(rounds.rows()).isBetween(600, 900);
        PlacedTable placedRounds = placer.by(rounds, guess.guess(rounds).orElseThrow());
        assertThat(placedRounds.match(0).reason()).contains("other way round");
        assertThat(placedRounds.rows(Match.State.PLACED)).isEqualTo(rounds.rows());

        Table visits = read("visits.ndjson").table();
        assertThat(visits.rows()).isEqualTo(3000);
        PlacedTable placedVisits = placer.by(visits, guess.guess(visits).orElseThrow());
        assertThat(placedVisits.rows(Match.State.PLACED)).isGreaterThan(2500);
        assertThat(placedVisits.rows(Match.State.UNPLACED))
                .as("towns that exist nowhere")
                .isPositive();
    }
}
