package sarnik.app.outside;

import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** The steward's page of hosts that may be asked though they lie inside. */
@Controller
class HostPages {

    private final AllowedHosts hosts;

    HostPages(AllowedHosts hosts) {
        this.hosts = hosts;
    }

    @GetMapping("/hosts")
    String hosts(Model model) {
        model.addAttribute("hosts", hosts.all());
        return "hosts";
    }

    @PostMapping("/hosts")
    String allow(
            @RequestParam String host,
            @RequestParam(defaultValue = "false") boolean forbid,
            @AuthenticationPrincipal SignedIn person,
            Model model) {
        try {
            if (forbid) hosts.forbid(host);
            else hosts.allow(host, person);
            return "redirect:/hosts";
        } catch (RefusedException refused) {
            model.addAttribute("refusal", refused.getMessage());
            return hosts(model);
        }
    }
}
