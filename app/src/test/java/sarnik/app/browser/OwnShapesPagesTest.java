package sarnik.app.browser;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.app.testing.MapSamples.figure;
import static sarnik.app.testing.MapSamples.map;
import static sarnik.app.testing.MapSamples.sum;

import com.microsoft.playwright.Page;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;

@DisplayName("The shapes that rows brought along, on a map")
class OwnShapesPagesTest extends MapBrowserTest {

    private static final String WAYS = """
            {"type": "FeatureCollection", "features": [
             {"type": "Feature", "properties": {"name": "course", "flow": 10}, "geometry": {"type": "LineString", "coordinates": [[-6, 41, 700], [-4, 41, 720], [-4, 42, 800]]}},
             {"type": "Feature", "properties": {"name": "field", "flow": 20}, "geometry": {"type": "Polygon", "coordinates": [[[-3, 40], [-1, 40], [-1, 41], [-3, 41], [-3, 40]]]}},
             {"type": "Feature", "properties": {"name": "well", "flow": 40}, "geometry": {"type": "Point", "coordinates": [-2, 42]}}]}""";

    private static long ways;

    private Page openWays() throws Exception {
        if (ways == 0) ways = sarnik.client("ana").bring(RunningSarnik.file("ways.geojson", WAYS), "Ways");
        String shapes = ("\"kind\":\"SHAPES\",\"dataset\":%d,\"name\":\"Flow\",\"border\":1.5,\"colour\":{%s,"
                        + "\"classes\":3,\"palette\":\"loch\"}")
                .formatted(ways, sum("flow"));
        return open("rui", map("v1", 0, 18, "", shapes) + "," + figure(ways, "flow"));
    }

    @Test
    void aLineAnAreaAndAPointArePickedByPressingThem() throws Exception {
        Page page = openWays();
        assertThat(page.locator(".map-key-row").count()).isEqualTo(3);
        press(page, new double[] {-2, 42});
        waitForText(page.locator(".figure-number"), "40");
        press(page, new double[] {-4.8, 41});
        waitForText(page.locator(".figure-number"), "10");
        press(page, new double[] {-2.2, 40.4});
        waitForText(page.locator(".figure-number"), "20");
        press(page, new double[] {-5, 41.7});
        waitForText(page.locator(".figure-number"), "70");
    }

    @Test
    void theyTravelApartFromFiguresAndOnceOnly() throws Exception {
        Page page = openWays();
        SarnikClient reader = sarnik.client("rui");
        String layer = page.url().replaceAll("\\?.*", "").replaceAll(".*/dashboards/", "/api/dashboards/")
                + "/visuals/v1/layers/l1/shapes/CLOSE";
        HttpResponse<String> first = reader.get(layer);
        assertThat(first.statusCode()).isEqualTo(200);
        assertThat(first.body())
                .contains("\"lines\":[[-600000,4100000,200000,0,0,100000]]")
                .contains("\"rings\":[[-300000,4000000,");
        String tag = first.headers().firstValue("ETag").orElseThrow();
        assertThat(reader.send("GET", layer, "text/plain", "", "If-None-Match", tag)
                        .statusCode())
                .isEqualTo(304);
        assertThat(reader.get(layer.replace("/l1/", "/l7/")).statusCode()).isEqualTo(400);
    }

    @Test
    void theyGoOutAsTheyCameIn() throws Exception {
        openWays();
        HttpResponse<String> out = sarnik.client("ana").get("/datasets/%d/rows.geojson".formatted(ways));
        assertThat(out.body())
                .contains("\"LineString\",\"coordinates\":[[-6.0,41.0,700.0],[-4.0,41.0,720.0],[-4.0,42.0,800.0]]")
                .contains("\"Point\",\"coordinates\":[-2.0,42.0]")
                .doesNotContain("\"shape\"");
    }
}
