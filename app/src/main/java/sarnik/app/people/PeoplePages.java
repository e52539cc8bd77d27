package sarnik.app.people;

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

    private final Groups groups;
    private final Sessions sessions;
    private final SecondFactor factor;
    private final OutsideSignIn outside;

    PeoplePages(PeopleService people, Groups groups, Sessions sessions, SecondFactor factor, OutsideSignIn outside) {
        this.outside = outside;
        this.people = people;
        this.groups = groups;
        this.sessions = sessions;
        this.factor = factor;
    }

    @GetMapping("/sign-in")
    String signIn(Model model) {
        model.addAttribute("outside", outside.isOffered() ? outside : null);
        return "sign-in";
    }

    @GetMapping("/people")
    String people(Model model) {
        model.addAttribute("people", people.all());
        model.addAttribute("roles", Role.values());
        Groups.Worded known = groups.worded();
        model.addAttribute("known", known.people());
        model.addAttribute("knownOfGroups", known.groups());
        model.addAttribute("groups", groups.all());
        model.addAttribute("outside", outside.isOffered() ? outside : null);
        return "people";
    }

    @PostMapping("/people/groups")
    String makeGroup(@RequestParam(defaultValue = "") String name, RedirectAttributes flash) {
        return said(
                flash,
                "/people#groups",
                () -> "The group “%s” is made. Put people into it."
                        .formatted(groups.make(name).name()));
    }

    /** What a steward does about a group. */
    @PostMapping("/people/groups/{id}")
    String changeGroup(
            @PathVariable long id,
            @RequestParam String act,
            @RequestParam(defaultValue = "0") long person,
            @RequestParam(defaultValue = "") String known,
            RedirectAttributes flash) {
        return said(flash, "/people#groups", () -> {
            switch (act) {
                case "in" -> groups.member(id, person, true);
                case "out" -> groups.member(id, person, false);
                case "describe" -> groups.describe(null, id, known);
                case "remove" -> groups.remove(id);
                default -> throw new RefusedException("Say what is to be done: in, out, describe or remove.");
            }
            return act.equals("remove") ? "The group is taken away; what was given to it is given to nobody." : "Kept.";
        });
    }

    /** What a steward does about somebody who is there. */
    @PostMapping("/people/{id}")
    String change(
            @PathVariable long id,
            @RequestParam String act,
            @RequestParam(defaultValue = "") String known,
            @AuthenticationPrincipal SignedIn steward,
            RedirectAttributes flash) {
        return said(flash, "/people", () -> switch (act) {
            case "describe" -> {
                groups.describe(id, null, known);
                yield "Kept. Rules on rows show this person other rows from now on.";
            }
            case "outside" -> {
                people.knowOutside(id, known);
                yield "Kept. Whoever %s vouches for so signs in as %s."
                        .formatted(outside.isOffered() ? outside.name() : "a provider", people.nameOf(id));
            }
            case "close" ->
                "%s can sign in no more; what this person has made stays."
                        .formatted(people.close(id, steward).getName());
            case "reopen" -> "%s can sign in again.".formatted(people.reopen(id).getName());
            case "word" ->
                "%s signs in once with the word %s, within a day, and then chooses a password. Hand it over; it is not shown again. All sessions of this person are ended."
                        .formatted(people.nameOf(id), people.giveWord(id));
            case "sessions" -> {
                sessions.endAll(id, null);
                yield "All sessions of %s are ended.".formatted(people.nameOf(id));
            }
            case "factor" -> {
                factor.end(id);
                yield "%s signs in without a code from now on, and can set the second factor up anew."
                        .formatted(people.nameOf(id));
            }
            default ->
                throw new RefusedException(
                        "Say what is to be done: close, reopen, word, sessions, factor, outside or describe.");
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
