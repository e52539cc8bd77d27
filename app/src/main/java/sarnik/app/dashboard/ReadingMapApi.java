package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.dataset.PlaceSearch;
import sarnik.app.ground.Pictures;
import sarnik.app.web.RefusedException;
import sarnik.geo.ShapeBand;
import tools.jackson.databind.json.JsonMapper;

/**
 * What maps need besides figures, for whoever bears a link: shapes of areas, tiles of the ground, places by name.
 * People who are signed in ask for it where it is common to all dashboards.
 */
@RestController
@RequestMapping("/api/shown/{bearer}")
class ReadingMapApi {

    private final BoundarySets boundaries;
    private final Pictures pictures;
    private final JsonMapper mapper;

    ReadingMapApi(BoundarySets boundaries, Pictures pictures, JsonMapper mapper) {
        this.boundaries = boundaries;
        this.pictures = pictures;
        this.mapper = mapper;
    }

    /** Shapes of a set; of those only that the document names, not what else was brought in. */
    @GetMapping("/boundary-sets/{name}/shapes/{band}")
    ResponseEntity<byte[]> shapes(
            Reading reading, @PathVariable String name, @PathVariable ShapeBand band, HttpServletRequest request) {
        if (!reading.document().json().contains(mapper.writeValueAsString(name)))
            throw RefusedException.gone("boundary set");
        return boundaries.shapes(name, band).answer(request);
    }

    @GetMapping("/grounds/{name}/{z}/{x}/{y}")
    ResponseEntity<byte[]> tile(
            Reading reading,
            @PathVariable String name,
            @PathVariable int z,
            @PathVariable int x,
            @PathVariable int y,
            @RequestParam(defaultValue = "false") boolean night,
            @RequestParam(defaultValue = "2") int detail) {
        return pictures.answer(name, z, x, y, night, detail);
    }

    /** Places of a name; see {@link PlaceSearch}. */
    @GetMapping("/places")
    List<PlaceSearch.Offer> search(
            Reading reading, @RequestParam String name, @RequestParam(required = false) List<Double> view) {
        return PlaceSearch.of(name, view);
    }
}
