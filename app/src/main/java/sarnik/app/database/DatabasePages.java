package sarnik.app.database;

import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** The steward's page of databases elsewhere. */
@Controller
class DatabasePages {

    private final Databases databases;

    DatabasePages(Databases databases) {
        this.databases = databases;
    }

    @GetMapping("/databases")
    String databases(Model model) {
        model.addAttribute("databases", databases.all());
        model.addAttribute("kinds", Elsewhere.Kind.values());
        return "databases";
    }

    @PostMapping("/databases")
    String add(
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "POSTGRESQL") Elsewhere.Kind kind,
            @RequestParam(defaultValue = "") String host,
            @RequestParam(defaultValue = "5432") int port,
            @RequestParam(defaultValue = "") String catalog,
            @RequestParam(defaultValue = "") String username,
            @RequestParam(defaultValue = "") String password,
            @RequestParam(defaultValue = "false") boolean encrypted,
            @RequestParam(defaultValue = "60") int seconds,
            @RequestParam(defaultValue = "5000000") long mostRows,
            @AuthenticationPrincipal SignedIn person,
            Model model,
            RedirectAttributes next) {
        try {
            next.addFlashAttribute(
                    "said",
                    databases.add(
                            new Databases.Wanted(
                                    name, kind, host, port, catalog, username, password, encrypted, seconds, mostRows),
                            person));
            return "redirect:/databases";
        } catch (RefusedException refused) {
            model.addAttribute("refusal", refused.getMessage());
            // What was written stays, but for the password.
            model.addAttribute("name", name);
            model.addAttribute("kind", kind);
            model.addAttribute("host", host);
            model.addAttribute("port", port);
            model.addAttribute("catalog", catalog);
            model.addAttribute("username", username);
            model.addAttribute("encrypted", encrypted);
            model.addAttribute("seconds", seconds);
            model.addAttribute("mostRows", mostRows);
            return databases(model);
        }
    }

    @PostMapping("/databases/remove")
    String remove(@RequestParam long id, RedirectAttributes next) {
        try {
            databases.remove(id);
        } catch (RefusedException refused) {
            next.addFlashAttribute("refusal", refused.getMessage());
        }
        return "redirect:/databases";
    }

    @PostMapping("/databases/try")
    String tryIt(@RequestParam long id, RedirectAttributes next) {
        try {
            Elsewhere database = databases.needed(id);
            next.addFlashAttribute("said", "“%s”: %s".formatted(database.getName(), databases.tried(database)));
        } catch (RefusedException refused) {
            next.addFlashAttribute("refusal", refused.getMessage());
        }
        return "redirect:/databases";
    }
}
