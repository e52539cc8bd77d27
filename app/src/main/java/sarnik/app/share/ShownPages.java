package sarnik.app.share;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.http.HttpStatus;
import org.springframework.security.web.savedrequest.HttpSessionRequestCache;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import sarnik.app.dashboard.Reading;
import sarnik.app.dashboard.SheetModel;
import sarnik.app.people.SignInWaits;
import sarnik.app.people.SignedIn;
import sarnik.app.web.PagePolicy;

/** Published dashboards as whoever bears a link sees them. */
@Controller
class ShownPages {

    private final Links links;
    private final LinkDoor door;
    private final SheetModel sheets;
    private final SignInWaits waits;

    ShownPages(Links links, LinkDoor door, SheetModel sheets, SignInWaits waits) {
        this.links = links;
        this.door = door;
        this.sheets = sheets;
        this.waits = waits;
    }

    @GetMapping("/shown/{secret}")
    String shown(@PathVariable String secret, HttpServletRequest request, HttpServletResponse response, Model model) {
        return opened(new Links.Borne(secret, null), request, response, model, null);
    }

    /** The page twice, or one of its visuals. */
    @GetMapping("/shown/{secret}/beside")
    String beside(
            @PathVariable String secret,
            @RequestParam(defaultValue = "") String visual,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        return opened(new Links.Borne(secret, null), request, response, model, visual);
    }

    /**
     * The password of a link, typed, or what says that it was typed before in this window. The page is answered as it
     * is, so that its address is still one that asks for the password.
     */
    @PostMapping({"/shown/{secret}", "/shown/{secret}/beside"})
    String unlock(
            @PathVariable String secret,
            @RequestParam(defaultValue = "") String password,
            @RequestParam(defaultValue = "") String pass,
            @RequestParam(defaultValue = "") String visual,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        String beside = request.getRequestURI().endsWith("/beside") ? visual : null;
        if (!pass.isEmpty()) return opened(new Links.Borne(secret, pass), request, response, model, beside);
        Links.Opened link = links.open(new Links.Borne(secret, null));
        frame(link, response);
        String name = "link " + link.id();
        long seconds = waits.seconds(name, request.getRemoteAddr());
        if (seconds > 0) {
            model.addAttribute("wait", seconds);
            return "locked";
        }
        Optional<String> typed = links.pass(secret, password);
        if (typed.isEmpty()) {
            waits.wrong(name, request.getRemoteAddr());
            model.addAttribute("wrong", true);
            response.setStatus(HttpStatus.UNAUTHORIZED.value());
            return "locked";
        }
        waits.right(name, request.getRemoteAddr());
        return opened(new Links.Borne(secret, typed.get()), request, response, model, beside);
    }

    /** @param beside which visual stands twice, empty for all; null where the page stands once */
    private String opened(
            Links.Borne borne, HttpServletRequest request, HttpServletResponse response, Model model, String beside) {
        Links.Opened link = links.open(borne);
        frame(link, response);
        if (link.locked()) return "locked";
        SignedIn person = SignedIn.of(request);
        if (link.opensTo() != ShareLink.OpensTo.ANYONE && person == null) {
            new HttpSessionRequestCache().saveRequest(request, response);
            return "redirect:/sign-in";
        }
        Reading reading = sheets.spoken(request, () -> door.open(link, person), Function.identity());
        String base = "/api/shown/" + borne.text();
        if (beside != null) return sheets.beside(reading, base, beside, model);
        model.addAttribute("pass", borne.pass());
        sheets.fill(reading, base, model);
        return "shown";
    }

    /** Says which sites may show it in a frame: those that its author has named, and Sarnik's own pages. */
    private static void frame(Links.Opened link, HttpServletResponse response) {
        response.setHeader("Content-Security-Policy", PagePolicy.framedBy(link.sites()));
        // Its address is all that opens it: no page that it leads to, and no shared memory on the way, may keep it.
        response.setHeader("Referrer-Policy", "no-referrer");
        response.setHeader("Cache-Control", "no-store");
        response.setHeader("X-Robots-Tag", "noindex, nofollow");
    }
}
