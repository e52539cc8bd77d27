package sarnik.place;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.format.BoundaryFiles;
import sarnik.geo.BoundarySet;

@DisplayName("Places of the world")
class WorldPlacesTest {

    private static final Gazetteer GAZETTEER = Gazetteer.shipped();
    private static final NamePlacer PLACER = new NamePlacer(GAZETTEER);

    private static Match mixed(String cell) {
        return PLACER.place(Words.of(cell, GAZETTEER));
    }

    private static String told(Match match) {
        return match.place() == null
                ? "-"
                : match.place().name() + ", " + match.place().country();
    }

    @Nested
    @DisplayName("countries")
    class Countries {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "UK|GB",
                    "U.S.A.|US",
                    "UAE|AE",
                    "DR Congo|CD",
                    "Congo, Dem. Rep.|CD",
                    "Czech Republic|CZ",
                    "Ivory Coast|CI",
                    "Türkiye|TR",
                    "Turkey|TR",
                    "Hong Kong|HK",
                    "Kosovo|XK",
                    "XK|XK",
                    "Korea, Rep.|KR",
                    "Republic of Korea|KR",
                    "Viet Nam|VN",
                    "Burma|MM",
                    "Swaziland|SZ",
                    "Macedonia, FYR|MK",
                    "Russian Federation|RU",
                    "Egypt, Arab Rep.|EG",
                    "Iran (Islamic Republic of)|IR",
                    "Venezuela, RB|VE",
                    "日本|JP",
                    "Россия|RU",
                    "مصر|EG",
                    "Ελλάδα|GR",
                    "Deutschland|DE",
                    "Alemania|DE",
                    "Royaume-Uni|GB",
                    "Bosnia and Herz.|BA",
                    "Dem. Rep. Congo|CD",
                    "W. Sahara|EH",
                    "trinidad & tobago|TT"
                })
        void areKnownByEveryNameInUse(String written, String code) {
            assertThat(GAZETTEER.country(written)).contains(code);
        }

        @Test
        void areKnownByAllTheirCodes() {
            for (String code : Locale.getISOCountries()) {
                String three = new Locale("", code).getISO3Country();
                for (String written : List.of(code, three))
                    assertThat(GAZETTEER.byCode(written))
                            .as(written)
                            .map(Place::country)
                            .contains(code);
            }
            assertThat(GAZETTEER.byCode("840")).map(Place::country).contains("US");
            assertThat(GAZETTEER.byCode("010")).map(Place::country).contains("AQ");
        }

        @Test
        void ofTheBoundarySetAreMetByTheirOwnNamesAndByOthers() {
            BoundarySet countries = BoundaryFiles.shipped(BoundaryFiles.Shipped.COUNTRIES);
            AreaMatcher matcher = new AreaMatcher(countries);
            countries
                    .areas()
                    .forEach(area -> assertThat(matcher.match(area.name()).place())
                            .as(area.name())
                            .isNotNull());
            for (String name :
                    List.of("Bosnia-Herzegovina", "Czech Republic", "USA", "840", "Congo (Kinshasa)", "España"))
                assertThat(matcher.match(name).state()).as(name).isEqualTo(Match.State.PLACED);
            assertThat(matcher.match("Total").place()).isNull();
        }

        @Test
        void haveTheirCapitals() {
            for (String capital : List.of(
                    "Naypyidaw",
                    "Dodoma",
                    "Astana",
                    "Jerusalem",
                    "Sucre",
                    "Abuja",
                    "Malabo",
                    "Ngerulmud",
                    "Vatican City",
                    "Canberra"))
                assertThat(GAZETTEER.towns(capital)).as(capital).isNotEmpty();
        }
    }

    @Nested
    @DisplayName("regions")
    class Regions {

        @ParameterizedTest
        @CsvSource({
            "US-CA, California",
            "BR-SP, São Paulo",
            "DE-BY, Bavaria",
            "FR-IDF, Île-de-France",
            "FR-NAQ, Nouvelle-Aquitaine",
            "FR-75, Paris",
            "IN-MH, Maharashtra",
            "PT-11, Lisbon",
            "JP-13, Tokyo",
            "IT-25, Lombardy",
            "AU-NSW, New South Wales",
            "CA-ON, Ontario",
            "MX-JAL, Jalisco",
            "GB-SCT, Scotland",
            "CN-BJ, Beijing",
            "ZA-GP, Gauteng",
            "PL-22, Pomerania",
            "CH-ZH, Zurich",
            "NL-NH, North Holland",
            "AR-B, Buenos Aires",
            "US-PR, Puerto Rico",
            "NG-LA, Lagos",
            "KE-30, Nairobi"
        })
        void areKnownByTheirCodes(String code, String name) {
            Place place = GAZETTEER.byCode(code).orElseThrow();
            assertThat(GAZETTEER.regions(name).contains(place) || place.name().equals(name))
                    .as("%s is %s", code, place.name())
                    .isTrue();
        }

        @ParameterizedTest
        @CsvSource({"EE-511, Narva, EE", "MC-CO, La Condamine, MC", "FR-974, Réunion, RE", "FR-973, Guiana, GF"})
        void ofMunicipalitiesAndTerritoriesThatAreNoRegionsOfTheListLieInTheTownOfTheirNameOrInTheirCountry(
                String code, String name, String country) {
            Place place = GAZETTEER.byCode(code).orElseThrow();
            assertThat(place.country()).isEqualTo(country);
            assertThat(place.name()).contains(name);
        }

        @Test
        void areMetByNineInTenCodesOfTheStandard() {
            // Codes of ISO 3166-2:2020 of a few countries on each continent.
            String codes = "AT-1 AT-9 BE-VAN BE-WLX BG-22 BO-L CL-RM CO-ANT CU-03 DK-84 DO-01 EC-P EE-37 EG-C ET-AA "
                    + "FI-18 GH-AA GR-I GT-01 HR-21 HU-PE ID-JK IE-D IL-TA IQ-BG IR-23 IS-1 JM-01 JO-AM KE-30 "
                    + "KR-11 KW-KU LB-BA LK-11 LT-VL MA-CAS MG-T MM-06 MY-14 "
                    + "NG-LA NI-MN NO-03 NP-BA NZ-AUK OM-MA PA-8 PE-LMA PH-MNL PK-PB PY-11 QA-DA RO-B "
                    + "RS-00 RU-MOW SA-01 SE-AB SG-01 SI-061 SK-BL SN-DK SV-SS TH-10 TN-11 TR-34 TW-TPE TZ-02 "
                    + "UA-30 UG-C UY-MO UZ-TK VE-A VN-HN YE-AD ZA-WC ZM-09 ZW-HA";
            List<String> missing = Arrays.stream(codes.split(" "))
                    .filter(c -> GAZETTEER.byCode(c).isEmpty())
                    .toList();
            assertThat(missing).hasSizeLessThan(codes.split(" ").length / 10);
        }

        @Test
        void lettersWithoutACountryMeanARegionWhereOneFitsAndACountryElse() {
            Match california = PLACER.place(new Words("Los Angeles", "CA", null));
            assertThat(told(california)).isEqualTo("Los Angeles, US");
            assertThat(told(mixed("Los Angeles, CA"))).isEqualTo("Los Angeles, US");
            assertThat(told(PLACER.place(new Words("Los Angeles", null, "CA"))))
                    .as("in a column that was taken for countries")
                    .isEqualTo("Los Angeles, US");
            assertThat(told(PLACER.place(new Words("Moose Jaw", null, "CA")))).isEqualTo("Moose Jaw, CA");
            List<Words> states = List.of(
                    new Words(null, "CA", null),
                    new Words(null, "TX", null),
                    new Words(null, "NY", null),
                    new Words(null, "OR", null),
                    new Words(null, "IN", null));
            assertThat(new JointPlacer(PLACER).place(states))
                    .extracting(m -> m.place().country())
                    .containsOnly("US");
        }

        @Test
        void shipAsABoundarySet() {
            BoundarySet regions = BoundaryFiles.shipped(BoundaryFiles.Shipped.REGIONS);
            assertThat(regions.areas()).hasSizeGreaterThan(4500);
            AreaMatcher matcher = new AreaMatcher(regions);
            for (String code : List.of("US-CA", "BR-SP", "JP-13", "AU-NSW"))
                assertThat(matcher.match(code).state()).as(code).isEqualTo(Match.State.PLACED);
            assertThat(matcher.match("Maharashtra").place().areaCode()).isEqualTo("IN-MH");
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "東京|Tokyo, JP",
                "القاهرة, مصر|Cairo, EG",
                "Санкт-Петербург, Россия|Saint Petersburg, RU",
                "Αθήνα, Ελλάδα|Athens, GR",
                "서울|Seoul, KR",
                "München|Munich, DE",
                "Munich|Munich, DE",
                "Kiev, Ukraine|Kyiv, UA",
                "Bombay|Mumbai, IN"
            })
    void areKnownInTheirOwnScriptAndByForeignNames(String written, String place) {
        assertThat(told(mixed(written))).isEqualTo(place);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Munich - Bavaria|Munich, DE",
                "Bavaria - Munich|Munich, DE",
                "USA, Texas, Austin|Austin, US",
                "Austin, Texas, USA|Austin, US",
                "France: Paris|Paris, FR",
                "Paris (France)|Paris, FR",
                "28013 Madrid, Spain|Madrid, ES",
                "New York, NY 10001|New York City, US",
                "Sydney NSW 2000|Sydney, AU",
                "City of Cardiff, Wales|Cardiff, GB",
                "Orange County, California|Orange, US",
                "London SW1A 1AA, United Kingdom|London, GB",
                "MÃ¡laga, Spain|Málaga, ES",
                "Springfield, IL|Springfield, US",
                "Mumbai, MH|Mumbai, IN",
                "Vitoria-Gasteiz, Álava|Gasteiz / Vitoria, ES",
                "Coruña, A|A Coruña, ES",
                "Washington, D.C.|Washington, US",
                "St Petersburg, Russia|Saint Petersburg, RU"
            })
    void areFoundInWhateverWayACellIsWritten(String cell, String place) {
        assertThat(told(mixed(cell))).isEqualTo(place);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "-",
                "n/a",
                "N/A",
                "unknown",
                "Other",
                "otros",
                "no",
                "none",
                "TOTAL",
                "2015/01/01 01:00",
                "3.5",
                "2021-03-04",
                "14:30",
                "?",
                "—",
                "Desconocido",
                "sin datos",
                "[\"a\",\"b\"]",
                "{\"town\":\"Soria\"}"
            })
    void areNotWhatStandsForNone(String cell) {
        Match match = mixed(cell);
        assertThat(match.state()).isEqualTo(Match.State.UNPLACED);
        assertThat(match.reason()).contains("names no place");
    }

    @Test
    void ofARowWhoseNarrowestWordIsMissingAreUnknown() {
        assertThat(PLACER.place(new Words("", "Soria", "Spain")).reason()).isEqualTo("The town is missing.");
        assertThat(PLACER.place(new Words(null, "", "Spain")).place()).isNull();
        assertThat(new JointPlacer(PLACER)
                        .place(List.of(new Words("", null, "Spain"), new Words("Soria", null, "Spain")))
                        .get(0)
                        .place())
                .isNull();
        assertThat(told(PLACER.place(new Words(null, null, "Spain")))).isEqualTo("Spain, ES");
    }

    @Nested
    @DisplayName("columns")
    class ColumnsOfPlaces {

        private Placing.ByName guess(String... rows) {
            return new PlacingGuess(GAZETTEER).names(csv(rows));
        }

        @Test
        void ofTownsAndStatesAreToldApart() {
            assertThat(guess("city,state,amount", "Austin,TX,1", "Dallas,TX,2", "Portland,OR,3", "Reno,NV,4"))
                    .isEqualTo(new Placing.ByName("city", "state", null));
            assertThat(guess(
                            "name,st,amount",
                            "Austin,TX,1",
                            "Dallas,TX,2",
                            "Portland,OR,3",
                            "Reno,NV,4",
                            "Houston,TX,5"))
                    .isEqualTo(new Placing.ByName("name", "st", null));
        }

        @Test
        void ofTimesAndOfOtherWordsAreNone() {
            assertThat(guess("when,value", "2015/01/01 01:00,1", "2015/01/01 02:00,2", "2015/01/02 03:00,3")
                            .isEmpty())
                    .isTrue();
            assertThat(guess("answer,value", "yes,1", "no,2", "other,3", "none,4")
                            .isEmpty())
                    .isTrue();
            assertThat(guess("product,value", "still water,1", "sparkling water,2", "warm tea,3", "ice cubes,4")
                            .isEmpty())
                    .isTrue();
            assertThat(guess("month,value", "January,1", "February,2", "March,3", "April,4", "May,5")
                            .isEmpty())
                    .isTrue();
            assertThat(guess("who,value", "Anna Schmidt,1", "John Miller,2", "Maria Lopez,3")
                            .isEmpty())
                    .isTrue();
        }

        @Test
        void writtenMostlyWithSlipsAreStillTowns() {
            assertThat(guess(
                            "town,country",
                            "Zaragzoa,Spain",
                            "Barcelna,Spain",
                            "Valladoild,Spain",
                            "Salamnca,Spain",
                            "Soria,Spain"))
                    .isEqualTo(new Placing.ByName("town", null, "country"));
        }
    }

    @Test
    void aSlipIsBelievedByHowManyNamesLieAsNear() {
        // Nothing else is like the one; many short names are like the other.
        Match longName = PLACER.place(new Words("Valladoild", null, "Spain"));
        Match shortName = PLACER.place(new Words("Bara", null, "India"));
        assertThat(told(longName)).isEqualTo("Valladolid, ES");
        assertThat(longName.confidence()).isGreaterThan(0.8);
        assertThat(shortName.confidence()).isLessThan(0.75);
        assertThat(longName.reason()).contains("one letter off “Valladolid”");
    }

    @Test
    void aMainNameComesBeforeAnotherPlacesOtherName() {
        assertThat(GAZETTEER.search("Zaragoza", 3)).extracting(Place::name).containsOnly("Zaragoza");
        assertThat(GAZETTEER.search("Zaragoza", 1))
                .singleElement()
                .satisfies(p -> assertThat(p.country()).isEqualTo("ES"));
    }
}
