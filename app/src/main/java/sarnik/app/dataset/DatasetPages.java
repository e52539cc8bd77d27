package sarnik.app.dataset;

import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import sarnik.app.web.PageJson;
import sarnik.table.Table;

/** A dataset's page. */
@Controller
class DatasetPages {

    private static final int SHOWN_ROWS = 25;
    private final DatasetService datasets;
    private final PageJson json;

    DatasetPages(DatasetService datasets, PageJson json) {
        this.json = json;
        this.datasets = datasets;
    }

    @GetMapping("/datasets/{id}")
    String dataset(@PathVariable long id, Model model) {
        DatasetService.Loaded loaded = datasets.needed(id);
        Table table = loaded.dataset().table();
        model.addAttribute("dataset", loaded.dataset());
        model.addAttribute("version", datasets.version(id).orElseThrow());
        model.addAttribute("columns", table.names().stream().filter(n -> !n.startsWith("@"))
                .map(n -> ColumnLine.of(table, n, Map.of())).toList());
        model.addAttribute("rows", BringInService.firstRows(table, SHOWN_ROWS));
        PlacingPreview placing = loaded.placed() == null ? null : PlacingPreview.of(loaded.placed());
        model.addAttribute("placing", placing);
        if (placing != null) model.addAttribute("pointsJson", json.of(placing.points()));
        model.addAttribute("versions", datasets.versions(id));
        return "dataset";
    }

    @PostMapping("/api/datasets/{id}/versions/{number}/serve")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void serve(@PathVariable long id, @PathVariable int number) {
        datasets.serve(id, number);
    }
}
