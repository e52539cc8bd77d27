package sarnik.app.token;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;

/** The page on which a person makes tokens for programs. */
@Controller
class TokenPages {

    private final Tokens tokens;

    TokenPages(Tokens tokens) {
        this.tokens = tokens;
    }

    @GetMapping("/me/tokens")
    String tokens(@AuthenticationPrincipal SignedIn person, Model model) {
        model.addAttribute("tokens", tokens.of(person));
        model.addAttribute("scopes", Scope.values());
        model.addAttribute("ends", LocalDate.now().plusMonths(3));
        return "tokens";
    }

    @PostMapping("/me/tokens")
    String make(
            @RequestParam(defaultValue = "") String name,
            @RequestParam(required = false) List<Scope> scope,
            @RequestParam(defaultValue = "") String ends,
            @AuthenticationPrincipal SignedIn person,
            RedirectAttributes flash) {
        try {
            Set<Scope> scopes = scope == null || scope.isEmpty() ? Set.of() : EnumSet.copyOf(scope);
            flash.addFlashAttribute("token", tokens.make(person, name, scopes, LocalDate.parse(ends.strip())));
        } catch (DateTimeException unreadable) {
            flash.addFlashAttribute("refused", "Write the last day as year, month and day, such as 2027-01-31.");
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
        }
        return "redirect:/me/tokens";
    }

    @PostMapping("/me/tokens/{id}")
    String remove(@PathVariable long id, @AuthenticationPrincipal SignedIn person, RedirectAttributes flash) {
        tokens.remove(person, id);
        flash.addFlashAttribute("said", "The token opens nothing any more.");
        return "redirect:/me/tokens";
    }
}
