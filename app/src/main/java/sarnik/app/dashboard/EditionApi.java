package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.wiring.Finding;

/** Publishing a dashboard: its editions, which of them readers see, and what they may take along. */
@RestController
@RequestMapping("/api/dashboards/{id}")
class EditionApi {

    private final Editions editions;
    private final DashboardService dashboards;
    private final WiringService wirings;
    private final AnswerQueue queue;

    EditionApi(Editions editions, DashboardService dashboards, WiringService wirings, AnswerQueue queue) {
        this.editions = editions;
        this.dashboards = dashboards;
        this.wirings = wirings;
        this.queue = queue;
    }

    @GetMapping("/editions")
    Editions.Standing standing(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return editions.standing(id, person);
    }

    /** What the checker finds in the draft, before it is published. */
    @GetMapping("/findings")
    DeferredResult<List<Finding>> findings(
            @PathVariable long id, @AuthenticationPrincipal SignedIn person, HttpServletRequest request) {
        Reading reading = dashboards.compose(id, person).reading();
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                reading.datasets().prepare(reading.dashboard().datasets()),
                ticket -> wirings.findings(reading));
    }

    /**
     * A draft to be published.
     *
     * @param frozen ids of datasets that are shown as they are now; null for none
     * @param words what is new in it; null for nothing
     */
    record Publish(Set<Long> frozen, String words) {}

    @PostMapping("/editions")
    @ResponseStatus(HttpStatus.CREATED)
    Editions.Listed publish(
            @PathVariable long id, @RequestBody Publish publish, @AuthenticationPrincipal SignedIn person) {
        Set<Long> frozen = publish.frozen() == null ? Set.of() : publish.frozen();
        if (frozen.stream().anyMatch(java.util.Objects::isNull))
            throw new RefusedException("A list of datasets holds one that is null.");
        return editions.publish(id, frozen, publish.words(), person);
    }

    /**
     * Which edition readers see.
     *
     * @param number null for none
     */
    record Show(Integer number) {}

    @PutMapping("/edition")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void show(@PathVariable long id, @RequestBody Show show, @AuthenticationPrincipal SignedIn person) {
        editions.show(id, show.number(), person);
    }

    @DeleteMapping("/editions/{number}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id, @PathVariable int number, @AuthenticationPrincipal SignedIn person) {
        editions.remove(id, number, person);
    }

    /** What differs between an edition and another one, or the draft. */
    @GetMapping("/editions/{number}/differences")
    List<String> differences(
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam(required = false) Integer to,
            @AuthenticationPrincipal SignedIn person) {
        return editions.between(id, number, to, person);
    }

    @PutMapping("/takes")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void take(@PathVariable long id, @RequestBody Takes takes, @AuthenticationPrincipal SignedIn person) {
        dashboards.take(id, takes, person);
    }
}
