package sarnik.app.dataset;

import jakarta.servlet.http.HttpServletRequest;
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
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.people.Groups;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.people.Viewer;
import sarnik.app.web.RefusedException;
import sarnik.app.web.Revisions;
import sarnik.app.work.AnswerQueue;

/** Which rows of a dataset somebody sees who may not change it. */
@RestController
@RequestMapping("/api/datasets/{id}/viewer-rule")
class RowRulesApi {

    private final DatasetService datasets;
    private final RowRules rules;
    private final PeopleService people;
    private final Groups groups;
    private final AnswerQueue queue;

    RowRulesApi(DatasetService datasets, RowRules rules, PeopleService people, Groups groups, AnswerQueue queue) {
        this.datasets = datasets;
        this.rules = rules;
        this.people = people;
        this.groups = groups;
        this.queue = queue;
    }

    /**
     * Which rows somebody sees who may not change the dataset.
     *
     * @param rule a condition; empty for all
     */
    record RowRule(String rule) {}

    @PutMapping
    ResponseEntity<Void> show(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody RowRule rule,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(rules.show(id, Revisions.of(ifMatch), rule.rule(), person));
    }

    /** A rule on rows to try, as one person would see them. */
    record RowAttempt(String rule, Long person) {}

    /** What one person would see. */
    record Seen(String words) {}

    @PostMapping("/try")
    DeferredResult<Seen> tryOut(@PathVariable long id, @RequestBody RowAttempt attempt, HttpServletRequest request) {
        SignedIn as = attempt.person() == null
                ? null
                : people.find(attempt.person()).orElseThrow(() -> RefusedException.gone("person"));
        Viewer viewer = as == null ? Viewer.STRANGER : groups.viewer(as);
        return queue.answer(AnswerQueue.Asker.of(request), datasets.prepare(List.of(id)), ticket -> {
            RowRules.Sight sight = rules.tryOut(id, attempt.rule(), viewer.known());
            return new Seen("%s would see %,d of %,d rows."
                    .formatted(as == null ? "Whoever bears a link" : as.name(), sight.rows(), sight.of()));
        });
    }
}
