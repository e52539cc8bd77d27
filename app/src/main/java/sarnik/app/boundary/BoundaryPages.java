package sarnik.app.boundary;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import sarnik.app.people.SignedIn;
import sarnik.app.uses.Uses;
import sarnik.geo.BoundarySet;
import sarnik.geo.ShapeBand;

/** The boundary sets, and the areas of each. */
@Controller
class BoundaryPages {

    private static final int LISTED = 500;

    private final BoundarySets sets;
    private final Uses uses;

    BoundaryPages(BoundarySets sets, Uses uses) {
        this.uses = uses;
        this.sets = sets;
    }

    @GetMapping("/boundary-sets")
    String all(Model model) {
        model.addAttribute("sets", sets.all());
        return "boundaries";
    }

    @GetMapping("/boundary-sets/{name}")
    String one(@PathVariable String name, Model model) {
        BoundarySet set = sets.needed(name);
        model.addAttribute("set", set);
        model.addAttribute("areas", set.areas().stream().limit(LISTED).toList());
        model.addAttribute("more", Math.max(0, set.areas().size() - LISTED));
        model.addAttribute("uses", uses.ofBoundarySet(name));
        model.addAttribute("ships", sets.all().stream().anyMatch(s -> s.name().equals(name) && s.ships()));
        return "boundary";
    }

    /** Shapes travel apart from figures, and are kept by the browser for as long as they do not change. */
    @GetMapping("/api/boundary-sets/{name}/shapes/{band}")
    @ResponseBody
    ResponseEntity<byte[]> shapes(@PathVariable String name, @PathVariable ShapeBand band, HttpServletRequest request) {
        return sets.shapes(name, band).answer(request);
    }

    @DeleteMapping("/api/boundary-sets/{name}")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String name, @AuthenticationPrincipal SignedIn person) {
        sets.remove(name, person);
    }
}
