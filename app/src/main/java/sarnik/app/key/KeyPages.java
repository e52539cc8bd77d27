package sarnik.app.key;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;
import sarnik.visual.Colour;
import sarnik.visual.SharedKey;

/** The shared keys: what they are, who wears them, and changing them. */
@Controller
class KeyPages {

    private final SharedKeys keys;

    KeyPages(SharedKeys keys) {
        this.keys = keys;
    }

    /** A key as the page shows it. */
    public record Line(
            String name,
            String words,
            String palette,
            boolean reversed,
            String breaks,
            String low,
            String high,
            List<String> colours,
            boolean ofCategory,
            String order,
            List<String> wearers) {}

    @GetMapping("/keys")
    String all(Model model) {
        model.addAttribute("keys", keys.all().stream().map(this::line).toList());
        model.addAttribute("palettes", Palette.ALL.keySet());
        return "keys";
    }

    private Line line(SharedKey key) {
        Colour colour = key.colour();
        boolean ofCategory = colour.category() != null;
        int count = ofCategory
                ? colour.order() == null ? 8 : Math.max(1, colour.order().size())
                : colour.breaks() == null
                        ? colour.choice().classes()
                        : colour.breaks().size() + 1;
        return new Line(
                key.name(),
                key.words(),
                colour.choice().palette(),
                colour.choice().reversed(),
                colour.breaks() == null
                        ? ""
                        : colour.breaks().stream().map(KeyPages::plain).collect(Collectors.joining(" ")),
                plain(colour.low()),
                plain(colour.high()),
                colours(colour, count),
                ofCategory,
                colour.order() == null ? "" : String.join(", ", colour.order()),
                keys.wearers(key.name()));
    }

    private static List<String> colours(Colour colour, int count) {
        try {
            return Palette.of(colour.choice().palette()).colours(count);
        } catch (IllegalArgumentException unfit) {
            return List.of();
        }
    }

    private static String plain(Double number) {
        if (number == null) return "";
        return number == Math.rint(number) && Math.abs(number) < 1e15
                ? String.valueOf(number.longValue())
                : String.valueOf(NumberWords.shown(number));
    }

    /** Changes a key for all who wear it. */
    @PostMapping("/keys")
    String change(
            @RequestParam String name,
            @RequestParam String palette,
            @RequestParam(defaultValue = "") String breaks,
            @RequestParam(defaultValue = "") String low,
            @RequestParam(defaultValue = "") String high,
            @RequestParam(defaultValue = "false") boolean reversed,
            @RequestParam(defaultValue = "") String order,
            @RequestParam(defaultValue = "false") boolean remove,
            @AuthenticationPrincipal SignedIn person,
            Model model) {
        try {
            if (remove) {
                keys.remove(name, person);
                return "redirect:/keys";
            }
            SharedKey key = keys.find(name).orElseThrow(() -> RefusedException.gone("shared key"));
            Colour c = key.colour();
            List<Double> own = breaks.isBlank()
                    ? null
                    : Arrays.stream(breaks.strip().split("[\\s;]+"))
                            .map(KeyPages::number)
                            .toList();
            List<String> values = order.isBlank()
                    ? null
                    : Arrays.stream(order.split(","))
                            .map(String::strip)
                            .filter(v -> !v.isEmpty())
                            .toList();
            keys.keep(
                    new SharedKey(
                            name,
                            key.words(),
                            new Colour(
                                    c.measure(),
                                    c.per(),
                                    c.category(),
                                    values,
                                    c.ramp(),
                                    c.method(),
                                    c.classes(),
                                    palette,
                                    reversed,
                                    c.centre(),
                                    low.isBlank() ? null : number(low),
                                    high.isBlank() ? null : number(high),
                                    own,
                                    null,
                                    null,
                                    null)),
                    person);
            return "redirect:/keys";
        } catch (RefusedException refused) {
            model.addAttribute("refusal", refused.getMessage());
            return all(model);
        }
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text.strip().toLowerCase(Locale.ROOT));
        } catch (NumberFormatException odd) {
            throw new RefusedException(
                    "“" + text.strip() + "” is not a number. Write breaks with blanks between, such as 10 25 50.");
        }
    }

    /** Makes a key of a scale as it stands. */
    @PutMapping("/api/keys/{name}")
    @ResponseBody
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void keep(@PathVariable String name, @RequestBody SharedKey key, @AuthenticationPrincipal SignedIn person) {
        keys.keep(new SharedKey(name, key.words(), key.colour()), person);
    }
}
