package sarnik.app.carried;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.dashboard.DashboardService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;

/** Dashboards as packages, for those who may hand them on. */
@RestController
class PackageApi {

    private final Packages packages;
    private final DashboardService dashboards;

    PackageApi(Packages packages, DashboardService dashboards) {
        this.packages = packages;
        this.dashboards = dashboards;
    }

    /** What a package of this dashboard holds, and how large it is. */
    @GetMapping("/api/dashboards/{id}/package")
    Packages.About about(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        dashboards.check(id, May.HAND_ON, person);
        return packages.make(id).about();
    }

    /** The package: static files in one zip. */
    @GetMapping("/api/dashboards/{id}/package.zip")
    ResponseEntity<byte[]> zip(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        dashboards.check(id, May.HAND_ON, person);
        return file(
                "dashboard-" + id + ".zip", "application/zip", packages.make(id).zip());
    }

    /** Newer data for a package that stands somewhere already. */
    @GetMapping("/api/dashboards/{id}/package-data.js")
    ResponseEntity<byte[]> data(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        dashboards.check(id, May.HAND_ON, person);
        return file("data.js", "text/javascript", packages.data(id));
    }

    private static ResponseEntity<byte[]> file(String name, String type, byte[] bytes) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, type)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(name, StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(bytes);
    }
}
