package sarnik.app.dataset;

import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.web.Revisions;
import sarnik.data.Tie;

/** What columns of a dataset mean the same as columns of others. */
@RestController
@RequestMapping("/api/datasets/{id}/ties")
class TieApi {

    private final DatasetService datasets;
    private final TieService ties;

    TieApi(DatasetService datasets, TieService ties) {
        this.datasets = datasets;
        this.ties = ties;
    }

    /** How many rows a tie would bring together, in words. */
    record Partners(String words) {}

    @PostMapping("/match")
    Partners match(@PathVariable long id, @RequestBody Tie tie, @AuthenticationPrincipal SignedIn person) {
        if (tie != null) datasets.check(tie.dataset(), May.READ, person);
        return new Partners(PlacingPreview.partners(ties.match(id, tie)));
    }

    @PutMapping
    ResponseEntity<Void> tie(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody List<Tie> wanted,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(ties.tie(id, Revisions.of(ifMatch), wanted, person));
    }
}
