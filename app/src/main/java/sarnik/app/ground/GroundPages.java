package sarnik.app.ground;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import sarnik.app.people.SignedIn;
import sarnik.app.uses.Uses;
import sarnik.app.web.RefusedException;

/** The sources of pictures, for stewards, and their tiles, for everyone who is signed in. */
@Controller
class GroundPages {

    private final Pictures pictures;
    private final Uses uses;

    GroundPages(Pictures pictures, Uses uses) {
        this.uses = uses;
        this.pictures = pictures;
    }

    @GetMapping("/grounds")
    String all(Model model) {
        List<PictureSource> sources = pictures.all();
        model.addAttribute("sources", sources);
        model.addAttribute(
                "uses",
                sources.stream()
                        .collect(Collectors.toMap(
                                PictureSource::getName,
                                s -> uses.ofGround(s.getName()).stream()
                                        .map(Uses.Use::name)
                                        .toList())));
        return "grounds";
    }

    @PostMapping("/grounds")
    String change(
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String address,
            @RequestParam(defaultValue = "") String credit,
            @RequestParam(defaultValue = "18") int nearest,
            @RequestParam(defaultValue = "false") boolean remove,
            @AuthenticationPrincipal SignedIn person,
            Model model) {
        try {
            Optional<List<MapService.Offered>> offered = remove ? Optional.empty() : pictures.offered(address);
            if (offered.isPresent()) {
                model.addAttribute("offered", offered.get());
                model.addAttribute("service", address);
                model.addAttribute("credit", credit);
                return all(model);
            }
            if (remove) pictures.remove(name);
            else pictures.add(name, address, credit, nearest, person);
            return "redirect:/grounds";
        } catch (RefusedException refused) {
            model.addAttribute("refusal", refused.getMessage());
            return all(model);
        }
    }

    @GetMapping("/api/grounds/{name}/{z}/{x}/{y}")
    @ResponseBody
    ResponseEntity<byte[]> tile(
            @PathVariable String name,
            @PathVariable int z,
            @PathVariable int x,
            @PathVariable int y,
            @RequestParam(defaultValue = "false") boolean night,
            @RequestParam(defaultValue = "2") int detail) {
        return pictures.answer(name, z, x, y, night, detail);
    }
}
