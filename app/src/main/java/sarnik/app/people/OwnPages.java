package sarnik.app.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.savedrequest.HttpSessionRequestCache;
import org.springframework.security.web.savedrequest.SavedRequest;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import sarnik.app.audit.Act;
import sarnik.app.audit.ActLog;
import sarnik.app.web.RefusedException;

/** The own page of somebody who is signed in, and what is asked for before that. */
@Controller
class OwnPages {

    private static final String OFFERED = OwnPages.class.getName() + ".secret";

    private final PeopleService people;
    private final Sessions sessions;
    private final SecondFactor factor;
    private final SignInWaits waits;
    private final ActLog acts;

    OwnPages(PeopleService people, Sessions sessions, SecondFactor factor, SignInWaits waits, ActLog acts) {
        this.people = people;
        this.sessions = sessions;
        this.factor = factor;
        this.waits = waits;
        this.acts = acts;
    }

    @GetMapping("/me")
    String me(@AuthenticationPrincipal SignedIn person, HttpServletRequest request, Model model) {
        SignedIn now = people.find(person.id()).orElseThrow(() -> RefusedException.gone("person"));
        model.addAttribute(
                "sessions", sessions.of(person.id(), request.getSession().getId()));
        model.addAttribute("hasFactor", now.hasFactor());
        model.addAttribute("rescuesLeft", now.hasFactor() ? factor.left(person.id()) : 0);
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
        try {
            same(next, again);
            people.changeOwn(person, now, next, request.getSession().getId());
            flash.addFlashAttribute("said", "The password is changed. Your other sessions are ended.");
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
        }
        return "redirect:/me";
    }

    private static void same(String next, String again) {
        if (!next.equals(again))
            throw new RefusedException("The two new passwords are not the same. Nothing was changed.");
    }

    /** Ends one of the own sessions, or all but this one. */
    @PostMapping("/me/sessions")
    String end(
            @RequestParam(defaultValue = "") String key,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            RedirectAttributes flash) {
        if (key.isEmpty()) sessions.endAll(person.id(), request.getSession().getId());
        else sessions.end(person.id(), key);
        flash.addFlashAttribute("said", key.isEmpty() ? "Your other sessions are ended." : "The session is ended.");
        return "redirect:/me";
    }

    /** Offers a second factor to be set up. */
    @GetMapping("/me/factor")
    String offer(@AuthenticationPrincipal SignedIn person, HttpSession session, Model model) {
        String secret = (String) session.getAttribute(OFFERED);
        if (secret == null) {
            secret = factor.secret();
            session.setAttribute(OFFERED, secret);
        }
        String address = SecondFactor.address(secret, person.getUsername());
        model.addAttribute("secret", secret.replaceAll("(.{4})(?=.)", "$1 "));
        model.addAttribute("squares", SecondFactor.squares(address));
        model.addAttribute("picture", SecondFactor.picture(address));
        return "factor";
    }

    @PostMapping("/me/factor")
    String begin(
            @RequestParam(defaultValue = "") String code,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            Model model,
            RedirectAttributes flash) {
        HttpSession session = request.getSession();
        String secret = (String) session.getAttribute(OFFERED);
        if (secret == null) return "redirect:/me/factor";
        String waited = "factor " + person.id();
        try {
            checkWait(waited, request);
            List<String> words = factor.begin(person.id(), secret, code);
            session.removeAttribute(OFFERED);
            sessions.endAll(person.id(), session.getId());
            acts.keep(person.getUsername(), Act.Kind.PEOPLE, "set the second factor up", request.getRemoteAddr());
            model.addAttribute("words", words);
            return "rescue-words";
        } catch (RefusedException refused) {
            waits.wrong(waited, request.getRemoteAddr());
            flash.addFlashAttribute("refused", refused.getMessage());
            return "redirect:/me/factor";
        }
    }

    /** Takes the own second factor away. */
    @PostMapping("/me/factor/end")
    String endFactor(
            @RequestParam(defaultValue = "") String password,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            RedirectAttributes flash) {
        try {
            checkWait("factor " + person.id(), request);
            if (!people.isPasswordOf(person, password)) {
                waits.wrong("factor " + person.id(), request.getRemoteAddr());
                throw new RefusedException(
                        "The password you typed is not the one you sign in with. Nothing was changed.");
            }
            factor.end(person.id());
            acts.keep(person.getUsername(), Act.Kind.PEOPLE, "took the second factor away", request.getRemoteAddr());
            flash.addFlashAttribute("said", "You sign in without a code from now on.");
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
        }
        return "redirect:/me";
    }

    private void checkWait(String name, HttpServletRequest request) {
        long seconds = waits.seconds(name, request.getRemoteAddr());
        if (seconds > 0)
            throw new RefusedException(
                    "There were too many wrong tries. The next is taken in %d seconds.".formatted(seconds));
    }

    // --- what is asked for besides the password ---------------------------------------------------

    @GetMapping("/sign-in/code")
    String code(HttpServletRequest request) {
        return UnfinishedSignIn.CODE_PAGE.equals(UnfinishedSignIn.lacking(request.getSession(false)))
                ? "sign-in-code"
                : "redirect:/";
    }

    @PostMapping("/sign-in/code")
    String code(
            @RequestParam(defaultValue = "") String code,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        HttpSession session = request.getSession();
        if (!UnfinishedSignIn.CODE_PAGE.equals(UnfinishedSignIn.lacking(session))) return "redirect:/";
        String waited = "code " + person.id();
        try {
            checkWait(waited, request);
            if (!factor.takes(person.id(), code)) {
                waits.wrong(waited, request.getRemoteAddr());
                acts.keep(
                        person.getUsername(),
                        Act.Kind.KEPT_OUT,
                        "was kept out: the code does not fit",
                        request.getRemoteAddr());
                throw new RefusedException("That is not a code of now. Type the newest one that the app shows.");
            }
        } catch (RefusedException refused) {
            model.addAttribute("refused", refused.getMessage());
            return "sign-in-code";
        }
        waits.right(waited, request.getRemoteAddr());
        UnfinishedSignIn.lacks(session, person.hasGivenWord() ? UnfinishedSignIn.PASSWORD_PAGE : null);
        return onwards(request, response);
    }

    @GetMapping("/sign-in/password")
    String choose(HttpServletRequest request) {
        return UnfinishedSignIn.PASSWORD_PAGE.equals(UnfinishedSignIn.lacking(request.getSession(false)))
                ? "sign-in-password"
                : "redirect:/";
    }

    @PostMapping("/sign-in/password")
    String choose(
            @RequestParam(defaultValue = "") String next,
            @RequestParam(defaultValue = "") String again,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        HttpSession session = request.getSession();
        if (!UnfinishedSignIn.PASSWORD_PAGE.equals(UnfinishedSignIn.lacking(session))) return "redirect:/";
        try {
            same(next, again);
            people.chooseOwn(person, next, session.getId());
        } catch (RefusedException refused) {
            model.addAttribute("refused", refused.getMessage());
            return "sign-in-password";
        }
        UnfinishedSignIn.lacks(session, null);
        // Whoever is signed in is now somebody with a password of the own.
        SignedIn now = people.find(person.id()).orElseThrow(() -> RefusedException.gone("person"));
        var context = SecurityContextHolder.getContext();
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(now, null, now.getAuthorities()));
        new HttpSessionSecurityContextRepository().saveContext(context, request, response);
        return onwards(request, response);
    }

    private static String onwards(HttpServletRequest request, HttpServletResponse response) {
        SavedRequest wanted = new HttpSessionRequestCache().getRequest(request, response);
        return "redirect:" + (wanted == null ? "/" : wanted.getRedirectUrl());
    }
}
