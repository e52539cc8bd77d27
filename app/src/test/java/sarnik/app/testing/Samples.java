package sarnik.app.testing;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A small table and a dashboard of it, brought in through the interface. */
public final class Samples {

    public static final String JSON_PATCH = "application/json-patch+json";

    public static final String SALES = """
            town,province,country,day,product,litres
            Soria,Soria,Spain,2026-01-01,still,10
            Soria,Soria,Spain,2026-01-02,warm,20
            Zamora,Zamora,Spain,2026-01-02,still,100
            Burgos,Burgos,Spain,2026-02-01,still,40
            Burgos,Burgos,Spain,2026-02-02,warm,2
            Nowhere at all,Burgos,Spain,2026-02-03,warm,7
            """;

    private Samples() {}

    public static Path sales() {
        return RunningSarnik.file("sales.csv", SALES);
    }

    /** Brings the table in and composes a map, a figure, bars, two filters and two links. @return the dashboard's id */
    public static long dashboard(SarnikClient author, String title) throws IOException, InterruptedException {
        long sales = author.bring(sales(), "Sales");
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", title));
        String patch = """
                [{"op":"add","path":"/visuals/v1","value":{"type":"map","page":"p1","at":{"x":0,"y":0,"w":12,"h":10},"title":"Map","layers":{"l1":{"order":1,"dataset":%1$d,"opacity":0.8,
                   "size":{"measure":{"summary":"SUM","column":"litres"},"rule":"AREA","radius":24},
                   "colour":{"measure":{"summary":"AVERAGE","column":"litres"},"method":"NATURAL","classes":2,"palette":"loch"}}}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"figure","page":"p1","at":{"x":12,"y":0,"w":6,"h":4},"title":"Litres","dataset":%1$d,"measure":{"summary":"SUM","column":"litres"}}},
                 {"op":"add","path":"/visuals/v3","value":{"type":"bars","page":"p1","at":{"x":12,"y":4,"w":12,"h":6},"title":"Towns","dataset":%1$d,"category":"@place","measure":{"summary":"SUM","column":"litres"}}},
                 {"op":"add","path":"/filters/f1","value":{"type":"choice","page":"p1","order":1,"dataset":%1$d,"column":"product","title":"Product"}},
                 {"op":"add","path":"/filters/f2","value":{"type":"dates","page":"p1","order":2,"dataset":%1$d,"column":"day","title":"Day"}},
                 {"op":"add","path":"/links/k1","value":{"from":"v1"}},{"op":"add","path":"/links/k3","value":{"from":"v3"}}]
                """.formatted(sales);
        long id = made.get("id").asLong();
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + id,
                JSON_PATCH,
                patch,
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        return id;
    }

    public static JsonNode parse(String json) {
        return JsonMapper.builder().build().readTree(json);
    }
}
