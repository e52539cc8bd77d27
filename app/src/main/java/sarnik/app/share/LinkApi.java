package sarnik.app.share;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.people.SignedIn;

/** The links of a dashboard, for those who may hand it on. */
@RestController
@RequestMapping("/api/dashboards/{id}/links")
class LinkApi {

    private final Links links;

    LinkApi(Links links) {
        this.links = links;
    }

    @GetMapping
    List<Links.Listed> all(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return links.of(id, person);
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Links.Listed make(
            @PathVariable long id, @RequestBody Links.Wanted wanted, @AuthenticationPrincipal SignedIn person) {
        return links.make(id, wanted, person);
    }

    @PutMapping("/{link}")
    Links.Listed change(
            @PathVariable long id,
            @PathVariable("link") long number,
            @RequestBody Links.Wanted wanted,
            @AuthenticationPrincipal SignedIn person) {
        return links.change(id, number, wanted, person);
    }

    /** Ends a link. */
    @PostMapping("/{link}/end")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable long id, @PathVariable("link") long number, @AuthenticationPrincipal SignedIn person) {
        links.end(id, number, person);
    }

    /** Takes a link away that has ended. */
    @DeleteMapping("/{link}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id, @PathVariable("link") long number, @AuthenticationPrincipal SignedIn person) {
        links.remove(id, number, person);
    }
}
