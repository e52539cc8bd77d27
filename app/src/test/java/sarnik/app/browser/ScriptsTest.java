package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The pure functions of the browser's modules, run where they run. */
@DisplayName("The browser's modules")
class ScriptsTest extends BrowserTest {

    private Page page;

    @BeforeEach
    void aPage() {
        page = page("rui");
    }

    private Object run(String module, String expression) {
        return page.evaluate("async () => { const m = await import('/js/" + module + "'); return JSON.stringify(" + expression + "); }");
    }

    @Nested
    @DisplayName("state.js")
    class State {

        @Test
        void readsAndWritesTheAddress() {
            assertThat(run("state.js", "[...m.readState('?f.f1=warm,still&x=1&p.v1=a%2Cb&f.f2=')]")).isEqualTo("[[\"f.f1\",[\"warm\",\"still\"]],[\"p.v1\",[\"a,b\"]]]");
            assertThat(run("state.js", "m.writeState(new Map([['p.v1', ['ñ,&', 'b']], ['f.f1', ['x']], ['f.f2', []]]))")).isEqualTo("\"f.f1=x&p.v1=b,%C3%B1%2C%26\"");
            assertThat(run("state.js", "[...m.readState('f.f1=%zz')]")).as("what cannot be decoded stays").isEqualTo("[[\"f.f1\",[\"%zz\"]]]");
        }

        @ParameterizedTest(name = "{0} then {1}, added: {2}")
        @CsvSource(delimiter = '|', value = {
            "[] | ['a'] | false | ['a']", "['a'] | ['a'] | false | []", "['a'] | ['b'] | false | ['b']", "['a'] | ['b'] | true | ['a','b']",
            "['a','b'] | ['a'] | true | ['b']", "['a'] | ['a','b'] | true | ['a','b']", "['a','b'] | ['b','a'] | false | []"})
        void picksAddReplaceAndRelease(String before, String values, boolean add, String after) {
            assertThat(run("state.js", "m.picked(new Map([['p.v', " + before + "]]), 'p.v', " + values + ", " + add + ").get('p.v') ?? []")).isEqualTo(after.replace('\'', '"'));
        }
    }

    @Nested
    @DisplayName("graticule.js")
    class Graticule {

        @ParameterizedTest
        @CsvSource({"-3.5, 0.5, 3°30′W", "2, 1, 2°E", "0, 1, 0°", "-0.1666666667, 0.1666666667, 0°10′W", "12, 5, 12°E", "-59.999999, 1, 60°W"})
        void degreesInWords(double value, double step, String expected) {
            assertThat(run("map/graticule.js", "m.degreeWords(" + value + ", " + step + ", 'E', 'W')")).isEqualTo("\"" + expected + "\"");
        }

        @ParameterizedTest
        @CsvSource({"0.02, 2", "1, 30", "0.0001, 0.016666666666666666", "0.005, 0.5", "0.0675, 5"})
        void stepsLeaveRoomForTheirWords(double degreesPerPixel, double expected) {
            assertThat(Double.parseDouble(run("map/graticule.js", "m.stepFor(" + degreesPerPixel + ")").toString())).isEqualTo(expected);
        }
    }

    @Nested
    @DisplayName("symbols.js")
    class Symbols {

        private static final String LAYER = "m.prepare({ids: ['big', 'small', 'none'], lon: [0, 0, 5], lat: [0, 0, 5], radii: [20, 5, 0], classes: [0, 0, 0], key: {colours: []}, opacity: 1})";

        @Test
        void theTopmostSymbolIsReachedFirst() {
            String at = "m.symbolAt(" + LAYER + ", %s, ([x, y]) => [x / 1000 + 100, y / 1000 + 100])";
            assertThat(run("map/symbols.js", at.formatted("[101, 101]"))).isEqualTo("1");
            assertThat(run("map/symbols.js", at.formatted("[115, 100]"))).isEqualTo("0");
            assertThat(run("map/symbols.js", at.formatted("[140, 100]"))).isEqualTo("-1");
        }

        @Test
        void aBoxHoldsTheSymbolsWhoseCentreLiesInIt() {
            assertThat(run("map/symbols.js", "m.symbolsIn(" + LAYER + ", [-10, -10, 10, 10])")).isEqualTo("[\"big\",\"small\"]");
            assertThat(run("map/symbols.js", "m.symbolsIn(" + LAYER + ", [-1e7, -1e7, 1e7, 1e7])")).as("what has no size is not there").isEqualTo("[\"big\",\"small\"]");
        }

        @Test
        void aPictureHasTheColoursOfTheClassesAndARingForNoData() {
            Object pixels = page.evaluate("""
                    async () => {
                      const { paintSymbols, prepare } = await import('/js/map/symbols.js');
                      const { Sheet } = await import('/js/map/painted-layer.js');
                      const context = Object.assign(document.createElement('canvas'), { width: 200, height: 100 }).getContext('2d');
                      const sheet = new Sheet(context, 1, 200, 100, -100000, 50000, 1000);
                      const layer = prepare({ ids: ['a', 'b'], lon: [-0.449, 0.449], lat: [0, 0], radii: [20, 20], classes: [0, -1], key: { colours: [{ colour: '#336699' }] }, opacity: 1 });
                      paintSymbols(sheet, layer, new Set(), { ink: '#000000', rust: '#ff0000', faint: '#808080' });
                      const pixel = (x, y) => [...context.getImageData(x, y, 1, 1).data];
                      const plain = [pixel(50, 50), pixel(150, 50), pixel(150, 30)];
                      paintSymbols(sheet, layer, new Set(['a']), { ink: '#000000', rust: '#ff0000', faint: '#808080' });
                      return [...plain, pixel(50, 29)];
                    }""");
            List<?> found = (List<?>) pixels;
            assertThat(found.get(0)).isEqualTo(List.of(0x33, 0x66, 0x99, 255));
            assertThat(((List<?>) found.get(1)).get(3)).as("the middle of a ring is empty").isEqualTo(0);
            assertThat((Integer) ((List<?>) found.get(2)).get(3)).as("its edge is not").isPositive();
            assertThat((Integer) ((List<?>) found.get(3)).get(0)).as("what is picked has a rust ring").isGreaterThan(180);
        }
    }

    @Nested
    @DisplayName("edits.js and key.js")
    class Others {

        @Test
        void pointersAreFollowedAndEscapesUndone() {
            assertThat(run("edits.js", "[m.valueAt({a: {'b/c': [1, {d: 2}]}}, '/a/b~1c/1/d'), m.valueAt({a: 1}, '/x/y') === undefined, m.valueAt({'~': 5}, '/~0')]")).isEqualTo("[2,true,5]");
        }

        @Test
        void aKeyNamesItsCirclesClassesAndWhatHasNoData() {
            Object text = run("map/key.js", """
                    (() => { const box = document.createElement('div');
                      box.append(...m.keyOf({sizeWords: 'sum of litres', circles: [{radius: 20, text: '200 k'}, {radius: 10, text: '50 k'}],
                        colourWords: 'average of litres', colours: [{colour: '#112233', text: '1 – 2', count: 7}], missing: 3}));
                      return box.textContent; })()""");
            assertThat(text).isEqualTo("\"Sum of litres200 k50 kAverage of litres1 – 27no data3\"");
        }

        @Test
        void atNightTheHighestClassIsTheBrightest() {
            String colours = "m.coloursOf({colours: [{colour: '#eeeeee'}, {colour: '#111111'}]})";
            assertThat(run("map/key.js", colours)).isEqualTo("[\"#eeeeee\",\"#111111\"]");
            page.click("#mood");
            assertThat(run("map/key.js", colours)).isEqualTo("[\"#111111\",\"#eeeeee\"]");
        }
    }
}
