package sarnik.app.dataset;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import sarnik.app.web.RefusedException;

/** What stewards say about keeping old versions. */
@Controller
class KeepingPages {

    private final Keeping keeping;

    KeepingPages(Keeping keeping) {
        this.keeping = keeping;
    }

    @PostMapping("/datasets/kept")
    String keep(@RequestParam(defaultValue = "0") int versions, RedirectAttributes flash) {
        try {
            keeping.keep(versions);
            flash.addFlashAttribute("said", "Kept. Older versions go when newer rows come in.");
        } catch (RefusedException refused) {
            flash.addFlashAttribute("refused", refused.getMessage());
        }
        return "redirect:/#datasets-title";
    }
}
