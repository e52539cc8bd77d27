package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.scale.NumberWords;

/** The pure functions of the browser's modules, run where they run. */
@DisplayName("The browser's modules")
class ScriptsTest extends BrowserTest {

    private Page page;

    @BeforeEach
    void aPage() {
        page = page("rui");
        page.navigate("/me");
    }

    private Object run(String module, String expression) {
        return page.evaluate("async () => { const m = await import('/js/" + module + "'); return JSON.stringify("
                + expression + "); }");
    }

    @Nested
    @DisplayName("state.js")
    class State {

        @Test
        void readsAndWritesTheAddress() {
            assertThat(run("state.js", "[...m.readState('?f.f1=warm,still&x=1&p.v1=a%2Cb&f.f2=')]"))
                    .isEqualTo("[[\"f.f1\",[\"warm\",\"still\"]],[\"p.v1\",[\"a,b\"]]]");
            assertThat(run(
                            "state.js",
                            "m.writeState(new Map([['p.v1', ['ñ,&', 'b']], ['f.f1', ['x']], ['f.f2', []]]))"))
                    .isEqualTo("\"f.f1=x&p.v1=b,%C3%B1%2C%26\"");
            assertThat(run("state.js", "[...m.readState('f.f1=%zz')]"))
                    .as("what cannot be decoded stays")
                    .isEqualTo("[[\"f.f1\",[\"%zz\"]]]");
        }

        @ParameterizedTest(name = "{0} then {1}, added: {2}")
        @CsvSource(
                delimiter = '|',
                value = {
                    "[] | ['a'] | false | ['a']",
                    "['a'] | ['a'] | false | []",
                    "['a'] | ['b'] | false | ['b']",
                    "['a'] | ['b'] | true | ['a','b']",
                    "['a','b'] | ['a'] | true | ['b']",
                    "['a'] | ['a','b'] | true | ['a','b']",
                    "['a','b'] | ['b','a'] | false | []"
                })
        void picksAddReplaceAndRelease(String before, String values, boolean add, String after) {
            assertThat(run(
                            "state.js",
                            "m.picked(new Map([['p.v', " + before + "]]), 'p.v', " + values + ", " + add
                                    + ").get('p.v') ?? []"))
                    .isEqualTo(after.replace('\'', '"'));
        }
    }

    @Nested
    @DisplayName("shots.js")
    class Shots {

        @ParameterizedTest(name = "{0}: {1}, {2}")
        @CsvSource({
            "P-12.jpg,P-12,sure",
            "p_12.JPG,P-12,sure",
            "fuente ñu.png,F1,sure",
            "P-12 seen from the road.jpg,P-12,likely",
            "IMG_0001.jpg,'',none",
            "P-1 and Q-7.jpg,'',none"
        })
        void guessesWhosePictureAFileHolds(String file, String value, String how) {
            assertThat(run(
                            "shots.js",
                            "m.whose('" + file + "', ['P-1', 'P-12', 'Q-7'].map(value => ({ value, text: value }))"
                                    + ".concat({ value: 'F1', text: 'Fuente Nu' }))"))
                    .isEqualTo("{\"value\":\"" + value + "\",\"how\":\"" + how + "\"}");
        }
    }

    @Nested
    @DisplayName("labels.js")
    class Labels {

        /** On a sheet of 100 by 60, beside a place at x of a name that is 40 wide. */
        @ParameterizedTest(name = "nobody moves it: {0}, x {1}, y {2}: from {3}")
        @CsvSource({
            "true, 20, 30, 25",
            "true, 70, 30, 25",
            "true, 70, 5, null",
            "true, 70, 58, null",
            "true, 44, 30, 49",
            "false, 70, 30, 75",
            "false, 70, 5, 75"
        })
        void standWholeWhereTheMapIsNotMoved(boolean still, int x, int y, String left) {
            assertThat(run(
                            "map/labels.js",
                            "m.whole({ still: %s, width: 100, height: 60 }, %d, 40, [%d + 5, %d - 5 - 40])"
                                    .formatted(still, y, x, x)))
                    .isEqualTo(left);
        }

        @Test
        void areLeftOutWhereNoSideHasRoom() {
            assertThat(run("map/labels.js", "m.whole({ still: true, width: 100, height: 60 }, 30, 120, [5, -30])"))
                    .isEqualTo("null");
        }

        @Test
        void giveWayToOneThatIsThere() {
            assertThat(run(
                            "map/labels.js",
                            "(t => [m.takes(t, [0, 0, 10, 10]), m.takes(t, [5, 5, 15, 15]), m.takes(t, "
                                    + "[11, 0, 20, 10]), t.length])([])"))
                    .isEqualTo("[true,false,true,2]");
        }

        @Test
        void nameAPlaceOnce() {
            assertThat(run(
                            "map/labels.js",
                            "(t => [m.isNamed(t, 'Soria', [120, 10]), m.isNamed(t, 'Sori', [120, 10]), m.isNamed(t, "
                                    + "'Soria', [170, 10]), m.isNamed([], 'Soria', [0, 0])])"
                                    + "([[50, 0, 100, 18, 'Soria']])"))
                    .isEqualTo("[true,false,false,false]");
        }
    }

    @Nested
    @DisplayName("graticule.js")
    class Graticule {

        @ParameterizedTest
        @CsvSource({
            "-3.5, 0.5, 3°30′W",
            "2, 1, 2°E",
            "0, 1, 0°",
            "-0.1666666667, 0.1666666667, 0°10′W",
            "12, 5, 12°E",
            "-59.999999, 1, 60°W"
        })
        void degreesInWords(double value, double step, String expected) {
            assertThat(run("map/graticule.js", "m.degreeWords(" + value + ", " + step + ", 'E', 'W')"))
                    .isEqualTo("\"" + expected + "\"");
        }

        @ParameterizedTest
        @CsvSource({"0.02, 2", "1, 30", "0.0001, 0.016666666666666666", "0.005, 0.5", "0.0675, 5"})
        void stepsLeaveRoomForTheirWords(double degreesPerPixel, double expected) {
            assertThat(Double.parseDouble(run("map/graticule.js", "m.stepFor(" + degreesPerPixel + ")")
                            .toString()))
                    .isEqualTo(expected);
        }
    }

    @Nested
    @DisplayName("symbols.js")
    class Symbols {

        /** A layer of three places: a large and a small symbol at one point, and one that has no size. */
        private static final String LAYER = """
                await (async () => {
                  const { remember } = await import('/js/places.js');
                  const { MERCATOR } = await import('/js/map/projections.js');
                  remember({ t: { ids: ['big', 'small', 'none'], names: ['Big', 'Small', 'None'], within: ['', '', ''], lon: [0, 0, 5], lat: [0, 0, 5] } });
                  return m.prepare({ places: 't', at: [0, 1, 2], radii: [20, 5, 0], classes: [0, 0, 0], sizes: [20, 5, 'NaN'], tints: null, shape: 0, head: { opacity: 1, border: 1 }, key: { colours: [] } }, MERCATOR);
                })()""";

        @ParameterizedTest
        @CsvSource({"1000, -1000, 1", "15000, 0, 0", "40000, 0, -1"})
        void theTopmostSymbolIsReachedFirst(int x, int y, String expected) {
            assertThat(run("map/symbols.js", "m.symbolAt(" + LAYER + ", [" + x + ", " + y + "], 1000)"))
                    .isEqualTo(expected);
        }

        @Test
        void aBoxHoldsTheSymbolsWhoseCentreLiesInIt() {
            assertThat(run("map/symbols.js", "m.symbolsIn(" + LAYER + ", [-10, -10, 10, 10])"))
                    .isEqualTo("[\"big\",\"small\"]");
            assertThat(run("map/symbols.js", "m.symbolsIn(" + LAYER + ", [-1e7, -1e7, 1e7, 1e7])"))
                    .as("what has no size is not there")
                    .isEqualTo("[\"big\",\"small\"]");
            assertThat(run("map/symbols.js", "m.symbolsIn(" + LAYER + ", [-10, -10, 10, 10], () => false)"))
                    .isEqualTo("[]");
        }

        /** Colours [r, g, b, a] of pixels of a picture of symbols at 50,50 and 150,50, of radius 20. */
        private List<?> painted(int copies) {
            return (List<?>) page.evaluate("""
                    async copies => {
                      const { paintSymbols, prepare } = await import('/js/map/symbols.js');
                      const { remember } = await import('/js/places.js');
                      const { MERCATOR } = await import('/js/map/projections.js');
                      const { Sheet } = await import('/js/map/painted-layer.js');
                      const twice = list => Array.from({ length: copies }, () => list).flat();
                      remember({ u: { ids: ['a', 'b'], names: ['A', 'B'], within: ['', ''], lon: [-0.4492, 0.4492], lat: [0, 0] } });
                      const context = Object.assign(document.createElement('canvas'), { width: 200, height: 100 }).getContext('2d');
                      const sheet = new Sheet(context, 1, 200, 100, -100000, 50000, 1000);
                      const layer = prepare({ places: 'u', at: twice([0, 1]), radii: twice([20, 20]), classes: twice([0, -1]), sizes: twice([1, 1]), tints: null, shapes: null, shape: 0, members: null, head: { opacity: 1, border: 1 }, key: { colours: [{ colour: '#336699' }] } }, MERCATOR);
                      const tones = { ink: '#000000', rust: '#ff0000', faint: '#808080', halo: '#ffffff' };
                      paintSymbols(sheet, layer, new Set(), tones);
                      const pixel = (x, y) => [...context.getImageData(x, y, 1, 1).data];
                      const plain = [pixel(50, 50), pixel(150, 50), pixel(150, 30)];
                      paintSymbols(sheet, layer, new Set(['a']), tones);
                      return [...plain, pixel(50, 29)];
                    }""", copies);
        }

        @ParameterizedTest(name = "{0} of each")
        @CsvSource({"1", "1000"})
        void aPictureHasTheColoursOfTheClassesAndARingForNoData(int copies) {
            List<?> found = painted(copies);
            assertThat(found.get(0))
                    .as("the same whether few are drawn or many are copied")
                    .isEqualTo(List.of(0x33, 0x66, 0x99, 255));
            assertThat(((List<?>) found.get(1)).get(3))
                    .as("the middle of a ring is empty")
                    .isEqualTo(0);
            assertThat((Integer) ((List<?>) found.get(2)).get(3))
                    .as("its edge is not")
                    .isPositive();
            if (copies == 1)
                assertThat((Integer) ((List<?>) found.get(3)).get(0))
                        .as("what is picked has a rust ring")
                        .isGreaterThan(180);
        }
    }

    @Nested
    @DisplayName("Maps' modules")
    class Maps {

        @ParameterizedTest
        @CsvSource({"-3.7, 40.4", "0, 0", "-9.1, 38.7", "28.9, -15.6", "179, 60"})
        void theEqualAreaProjectionGoesThereAndBack(double lon, double lat) {
            List<?> back = (List<?>) page.evaluate(
                    "async ([lon, lat]) => { const { equalArea } = await import('/js/map/projections.js'); "
                            + "const p = equalArea(0, 40); return p.unproject(p.project(lon, lat)); }",
                    List.of(lon, lat));
            assertThat(((Number) back.get(0)).doubleValue()).isCloseTo(lon, within(1e-6));
            assertThat(((Number) back.get(1)).doubleValue()).isCloseTo(lat, within(1e-6));
        }

        @Test
        void equalAreasAreEqualOnIt() {
            // A quadrangle of one degree at the equator and at 60° north: the sphere's areas are as sin(lat2) -
            // sin(lat1).
            Object ratio = page.evaluate("""
                    async () => {
                      const { equalArea } = await import('/js/map/projections.js');
                      const p = equalArea(0, 40);
                      const size = (lon, lat) => { const ring = []; const n = 40;
                        for (let i = 0; i < n; i++) ring.push(p.project(lon + i / n, lat)); for (let i = 0; i < n; i++) ring.push(p.project(lon + 1, lat + i / n));
                        for (let i = 0; i < n; i++) ring.push(p.project(lon + 1 - i / n, lat + 1)); for (let i = 0; i < n; i++) ring.push(p.project(lon, lat + 1 - i / n));
                        return Math.abs(ring.reduce((s, [x, y], i) => { const [a, b] = ring[(i + 1) % ring.length]; return s + x * b - a * y; }, 0)) / 2; };
                      return size(5, 60) / size(-20, 0);
                    }""");
            double expected =
                    (Math.sin(Math.toRadians(61)) - Math.sin(Math.toRadians(60))) / Math.sin(Math.toRadians(1));
            assertThat(((Number) ratio).doubleValue()).isCloseTo(expected, within(2e-4));
        }

        @Test
        void aRingHoldsWhatLiesWithinIt() {
            String ring = "[[0, 0], [10, 0], [10, 10], [5, 3], [0, 10]]";
            assertThat(run(
                            "map/ring.js",
                            "[m.isWithin([2, 2], " + ring + "), m.isWithin([5, 8], " + ring + "), m.isWithin([12, 2], "
                                    + ring + ")]"))
                    .isEqualTo("[true,false,false]");
        }

        @Test
        void aBlurKeepsTheSumAndTheSpread() {
            List<?> found = (List<?>) page.evaluate("""
                    async () => {
                      const { blur } = await import('/js/map/density.js');
                      const grid = new Float32Array(101 * 101); grid[50 * 101 + 50] = 1;
                      const out = blur(grid, 101, 101, 6);
                      let sum = 0, spread = 0;
                      out.forEach((v, i) => { sum += v; spread += v * ((i % 101) - 50) ** 2; });
                      return [sum, Math.sqrt(spread / sum)];
                    }""");
            assertThat(((Number) found.get(0)).doubleValue()).isCloseTo(1, within(1e-4));
            assertThat(((Number) found.get(1)).doubleValue())
                    .as("the deviation that was asked for")
                    .isCloseTo(6, within(0.5));
        }

        @Test
        void flowsBendApart() {
            assertThat(run("map/flows.js", "[m.bend([0, 0], [100, 0]), m.bend([100, 0], [0, 0])]"))
                    .isEqualTo("[[50,16],[50,-16]]");
        }

        @Test
        void shapesAreStepsFromTheirFirstCorner() {
            assertThat(run("map/area-paths.js", "[...m.degrees([10, 20, 5, 0, 0, -5], 10)]"))
                    .isEqualTo("[[1,2],[1.5,2],[1.5,1.5]]");
            assertThat(run("map/area-paths.js", "m.box([[[1, 5], [3, 2]], [[-1, 4]]])"))
                    .isEqualTo("[-1,2,3,5]");
            assertThat(run("map/area-paths.js", "m.mercator(-180, 0)")).isEqualTo("[0,0.5]");
            assertThat(run("map/shapes.js", "[4, 4.3, 6.3, 9].map(m.bandAt)"))
                    .isEqualTo("[\"FAR\",\"WIDE\",\"NEAR\",\"CLOSE\"]");
        }

        @Test
        void numbersReadAsTheServerWritesThem() {
            double[] values = {0, 1, -1, 0.5, 99.994, 99.996, 123.45, 999.95, 1000.4, 1234567.8, -0.004, 2e9};
            for (double value : values) {
                assertThat(run("numbers.js", "m.full(" + NumberWords.shown(value) + ")"))
                        .as("%s", value)
                        .isEqualTo("\"" + NumberWords.full(value) + "\"");
            }
            assertThat(run("numbers.js", "[m.full(NaN), [...m.figures([1, 'NaN'])].map(String)]"))
                    .isEqualTo("[\"–\",[\"1\",\"NaN\"]]");
        }
    }

    @Nested
    @DisplayName("edits.js and key.js")
    class Others {

        @Test
        void pointersAreFollowedAndEscapesUndone() {
            assertThat(run(
                            "edits.js",
                            "[m.valueAt({a: {'b/c': [1, {d: 2}]}}, '/a/b~1c/1/d'), m.valueAt({a: 1}, "
                                    + "'/x/y') === undefined, m.valueAt({'~': 5}, '/~0')]"))
                    .isEqualTo("[2,true,5]");
        }

        @Test
        void aKeyNamesItsCirclesClassesAndWhatHasNoData() {
            Object text = run("map/key.js", """
                    (() => { const box = document.createElement('div');
                      box.append(...m.keyOf({sizeWords: 'sum of litres', circles: [{radius: 20, text: '200 k'}, {radius: 10, text: '50 k'}],
                        colourWords: 'average of litres', colours: [{colour: '#112233', text: '1 – 2', count: 7}], missing: 3, low: 1, high: 2, below: [], above: [4, 5]}));
                      return box.textContent; })()""");
            assertThat(text).isEqualTo("\"Sum of litres200 k50 kAverage of litres1 – 27no data3above 22\"");
        }

        @Test
        void atNightTheHighestClassIsTheBrightest() {
            String colours = "m.coloursOf({turns: true, colours: [{colour: '#eeeeee'}, {colour: '#111111'}]})";
            assertThat(run("map/key.js", colours)).isEqualTo("[\"#eeeeee\",\"#111111\"]");
            page.click("#mood");
            assertThat(run("map/key.js", colours)).isEqualTo("[\"#111111\",\"#eeeeee\"]");
        }
    }
}
