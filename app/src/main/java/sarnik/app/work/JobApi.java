package sarnik.app.work;

import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.people.SignedIn;

/** How far jobs have come. */
@RestController
@RequestMapping("/api/jobs")
class JobApi {

    private final Jobs jobs;

    JobApi(Jobs jobs) {
        this.jobs = jobs;
    }

    @GetMapping("/{id}")
    ResponseEntity<Object> state(@PathVariable String id, @AuthenticationPrincipal SignedIn person) {
        return jobs.state(id, person);
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@PathVariable String id, @AuthenticationPrincipal SignedIn person) {
        jobs.stop(id, person);
    }
}
