package sarnik.app.people;

import jakarta.servlet.http.HttpServletRequest;
import java.util.function.Supplier;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
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

    /** The own page of somebody who is signed in. */
    @GetMapping("/me")
    String me() {
        return "me";
    }

    @PostMapping("/me")
    String change(
            @RequestParam String now,
            @RequestParam String next,
            @RequestParam String again,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            RedirectAttributes flash) {
        return said(flash, "/me", () -> {
            if (!next.equals(again))
                throw new RefusedException("The two new passwords are not the same. Nothing was changed.");
            people.changeOwn(person, now, next, request.getSession().getId());
            return "The password is changed. Your other sessions are ended.";
        });
    }

    /** What a steward does about somebody who is there. */
    @PostMapping("/people/{id}")
    String change(
            @PathVariable long id,
            @RequestParam String act,
            @RequestParam(defaultValue = "") String password,
            @AuthenticationPrincipal SignedIn steward,
            RedirectAttributes flash) {
        return said(flash, "/people", () -> switch (act) {
            case "close" ->
                "%s can sign in no more; what this person has made stays."
                        .formatted(people.close(id, steward).getName());
            case "reopen" -> "%s can sign in again.".formatted(people.reopen(id).getName());
            case "password" ->
                "%s has a new password. Hand it over; all sessions of this person are ended."
                        .formatted(people.resetPassword(id, password).getName());
            default -> throw new RefusedException("Say what is to be done: close, reopen or password.");
        });
    }

    private static String said(RedirectAttributes flash, String back, Supplier<String> act) {
        try {
            flash.addFlashAttribute("said", act.get());
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
        }
        return "redirect:" + back;
    }

    @PostMapping("/people")
    String add(
            @RequestParam String signIn,
            @RequestParam String name,
            @RequestParam String password,
            @RequestParam Role role,
            RedirectAttributes flash) {
        return said(
                flash,
                "/people",
                () -> "%s can sign in now."
                        .formatted(people.add(signIn, name, password, role).getName()));
    }
}
