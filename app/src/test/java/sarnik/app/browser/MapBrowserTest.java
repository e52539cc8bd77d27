package sarnik.app.browser;

import static sarnik.app.testing.MapSamples.map;
import static sarnik.app.testing.MapSamples.sum;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.BeforeEach;
import sarnik.app.testing.MapSamples;

/** What tests of maps share: datasets of every kind and layers of them. */
abstract class MapBrowserTest extends BrowserTest {

    static MapSamples samples;

    /** A place within Madrid and one within Soria. */
    static final double[] MADRID = {-3.7, 40.5};

    static final double[] SORIA = {-2.6, 41.6};
    static final double[] TERUEL = {-0.9, 40.6};

    @BeforeEach
    void data() throws Exception {
        if (samples == null) samples = new MapSamples(sarnik.client("ana"));
    }

    Page open(String who, String visuals) throws Exception {
        Page page = sheet(who, samples.dashboard("Maps", visuals), "");
        page.waitForFunction("() => document.querySelector('.map-view').dataset.shaped > 0");
        return page;
    }

    String symbols(String more) {
        return "\"dataset\":%d,\"name\":\"Towns\",\"size\":{%s,\"rule\":\"AREA\",\"radius\":24}%s"
                .formatted(samples.towns, sum("litres"), more);
    }

    String provinces(String more) {
        return ("\"kind\":\"AREAS\",\"dataset\":%d,\"name\":\"Rates\",\"colour\":{%s,\"method\":\"EQUAL_STEPS\","
                        + "\"classes\":4,\"palette\":\"loch\"%s}")
                .formatted(samples.provinces, sum("rate"), more);
    }

    static void press(Page page, double[] at) {
        double[] pixel = onScreen(page, at[0], at[1]);
        page.mouse().click(pixel[0], pixel[1]);
    }

    static double zoom(Page page, int map) {
        return ((Number) page.evaluate("i => document.querySelectorAll('.map-view')[i].olMap.getView().getZoom()", map))
                .doubleValue();
    }
}
