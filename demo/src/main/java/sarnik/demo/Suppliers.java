package sarnik.demo;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import sarnik.place.Gazetteer;
import sarnik.place.Place;

/**
 * Whom Aljibe buys from: made-up suppliers in forty countries, so that the world beyond Iberia stays honest. Towns
 * stand in
 * their English or their local form, countries by name in either or by code, states by the code in daily use.
 *
 * <p>Oddities, on purpose: namesakes (Portland, Springfield, Columbus, London), two suppliers in towns that exist
 * nowhere, one of
 * which nothing is known but the country, amounts with their currency and dates in words.
 */
final class Suppliers {

    private static final int A_COUNTRY = 9;
    private static final List<String> FIRST = List.of(
            "Halde", "Orme", "Tarn", "Fjell", "Sund", "Kala", "Miro", "Vento", "Brisa", "Lumen", "Quell", "Rio",
            "Delta", "Cumbre", "Polder", "Istria");
    private static final List<String> PARTS =
            List.of("filters", "pumps", "valves", "tanks", "salts", "hoses", "meters", "coolers", "seals", "panels");
    private static final List<String> MONTHS =
            List.of("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec");

    /** Code, English name, local name. */
    private static final String COUNTRIES = """
            DE|Germany|Deutschland
            FR|France|France
            IT|Italy|Italia
            GB|United Kingdom|UK
            NL|Netherlands|Nederland
            BE|Belgium|België
            CH|Switzerland|Schweiz
            AT|Austria|Österreich
            PL|Poland|Polska
            CZ|Czechia|Česko
            HU|Hungary|Magyarország
            RO|Romania|România
            BG|Bulgaria|България
            GR|Greece|Ελλάδα
            TR|Turkey|Türkiye
            UA|Ukraine|Україна
            SE|Sweden|Sverige
            NO|Norway|Norge
            DK|Denmark|Danmark
            FI|Finland|Suomi
            IE|Ireland|Éire
            EG|Egypt|مصر
            MA|Morocco|المغرب
            NG|Nigeria|Nigeria
            KE|Kenya|Kenya
            ZA|South Africa|Suid-Afrika
            AR|Argentina|Argentina
            CL|Chile|Chile
            CO|Colombia|Colombia
            JP|Japan|日本
            CN|China|中国
            KR|South Korea|대한민국
            VN|Vietnam|Việt Nam
            NZ|New Zealand|Aotearoa
            """;

    /** Towns of countries whose states go by codes: town, state, country. */
    private static final String WITH_STATES = """
            New York|NY|USA
            Los Angeles|CA|USA
            Portland|OR|USA
            Portland|ME|USA
            Springfield|IL|USA
            Springfield|MA|USA
            Columbus|OH|USA
            Columbus|GA|USA
            Austin|TX|United States
            Denver|CO|US
            Toronto|ON|Canada
            Montréal|QC|Canada
            Vancouver|BC|Canada
            Calgary|AB|Canada
            Halifax|NS|Canada
            London|ON|Canada
            São Paulo|SP|Brazil
            Recife|PE|Brasil
            Curitiba|PR|Brasil
            Manaus|AM|Brazil
            Mumbai|MH|India
            Pune|MH|India
            Chennai|TN|India
            Bengaluru|KA|India
            Kolkata|WB|India
            Sydney|NSW|Australia
            Melbourne|VIC|Australia
            Perth|WA|Australia
            Newcastle|NSW|Australia
            Hobart|TAS|Australia
            Guadalajara|JAL|Mexico
            Mérida|YUC|México
            Puebla|PUE|Mexico
            """;

    private static final Map<String, String> LOCAL = Map.ofEntries(
            Map.entry("Munich", "München"),
            Map.entry("Vienna", "Wien"),
            Map.entry("Cairo", "القاهرة"),
            Map.entry("Tokyo", "東京"),
            Map.entry("Beijing", "北京"),
            Map.entry("Warsaw", "Warszawa"),
            Map.entry("Prague", "Praha"),
            Map.entry("Rome", "Roma"),
            Map.entry("Milan", "Milano"),
            Map.entry("Athens", "Αθήνα"),
            Map.entry("Bucharest", "București"),
            Map.entry("Kyiv", "Київ"),
            Map.entry("Seoul", "서울"),
            Map.entry("Copenhagen", "København"),
            Map.entry("Brussels", "Bruxelles"),
            Map.entry("Geneva", "Genève"),
            Map.entry("Turin", "Torino"),
            Map.entry("Naples", "Napoli"),
            Map.entry("Sofia", "София"),
            Map.entry("Osaka", "大阪市"));

    private Suppliers() {}

    static void write(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 16);
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("supplier,parts,city,state,country,bought last year,since\r\n");
            int number = 0;
            for (String line : COUNTRIES.lines().toList()) {
                String[] names = line.split("\\|");
                List<Place> towns = Gazetteer.shipped().townsOf(names[0]);
                for (Place town : towns.subList(0, Math.min(A_COUNTRY, towns.size()))) {
                    String name = random.nextBoolean() ? LOCAL.getOrDefault(town.name(), town.name()) : town.name();
                    String country = random.nextInt(4) == 0 ? names[0] : names[1 + random.nextInt(2)];
                    out.write(row(++number, name, "", country, random));
                }
            }
            for (String line : WITH_STATES.lines().toList()) {
                String[] town = line.split("\\|");
                out.write(row(++number, town[0], town[1], town[2], random));
            }
            out.write(row(++number, "Quellbrunn am Trugbild", "", "Germany", random));
            out.write(row(++number, "Mirage Falls", "OR", "USA", random));
            out.write(row(++number, "", "", "Norway", random));
        }
    }

    private static String row(int number, String town, String state, String country, Random random) {
        String parts = PARTS.get(random.nextInt(PARTS.size()));
        LocalDate since = LocalDate.of(2018, 1, 1).plusDays(random.nextInt(2800));
        long cents = (long) (Math.exp(8 + 1.3 * random.nextGaussian()) * 100);
        String amount = String.format(Locale.ROOT, "%,.2f", cents / 100.0);
        return "%s %s %d,%s,%s,%s,%s,\"€ %s\",%02d-%s-%d\r\n"
                .formatted(
                        FIRST.get(random.nextInt(FIRST.size())),
                        parts,
                        number,
                        parts,
                        town,
                        state,
                        country,
                        amount,
                        since.getDayOfMonth(),
                        MONTHS.get(since.getMonthValue() - 1),
                        since.getYear());
    }
}
