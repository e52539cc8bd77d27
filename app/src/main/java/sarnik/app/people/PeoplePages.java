package sarnik.app.people;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import sarnik.app.web.RefusedException;

/** Signing in, and the steward's page of people. */
@Controller
class PeoplePages {

    private final PeopleService people;

    PeoplePages(PeopleService people) {
        this.people = people;
    }

    @GetMapping("/sign-in")
    String signIn() {
        return "sign-in";
    }

    @GetMapping("/people")
    String people(Model model) {
        model.addAttribute("people", people.all());
        model.addAttribute("roles", Role.values());
        return "people";
    }

    @PostMapping("/people")
    String add(@RequestParam String signIn, @RequestParam String name, @RequestParam String password, @RequestParam Role role, RedirectAttributes flash) {
        try {
            Person person = people.add(signIn, name, password, role);
            flash.addFlashAttribute("said", "%s can sign in now.".formatted(person.getName()));
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
        }
        return "redirect:/people";
    }
}
