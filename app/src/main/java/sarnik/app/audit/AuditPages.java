package sarnik.app.audit;

import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The steward's page of what was done. */
@Controller
class AuditPages {

    private static final int SHOWN = 200;
    private static final int MOST = 100_000;

    /** The end of what PostgreSQL and calendars of people have in common. */
    private static final Instant NEVER = Instant.parse("9999-01-01T00:00:00Z");

    private static final MediaType CSV = new MediaType("text", "csv", StandardCharsets.UTF_8);

    private final ActLog log;

    AuditPages(ActLog log) {
        this.log = log;
    }

    @GetMapping("/acts")
    String acts(
            @RequestParam(defaultValue = "") List<String> kind,
            @RequestParam(defaultValue = "") String who,
            @RequestParam(defaultValue = "") String words,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String to,
            Model model) {
        List<Act> found = found(kind, who, words, from, to, SHOWN + 1);
        model.addAttribute("acts", found.stream().limit(SHOWN).toList());
        model.addAttribute("more", found.size() > SHOWN);
        model.addAttribute("kinds", Act.Kind.values());
        model.addAttribute("chosen", kinds(kind));
        model.addAttribute("who", who);
        model.addAttribute("words", words);
        model.addAttribute("from", day(from) == null ? "" : from);
        model.addAttribute("to", day(to) == null ? "" : to);
        return "acts";
    }

    @GetMapping("/acts.csv")
    ResponseEntity<byte[]> csv(
            @RequestParam(defaultValue = "") List<String> kind,
            @RequestParam(defaultValue = "") String who,
            @RequestParam(defaultValue = "") String words,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String to) {
        String rows = found(kind, who, words, from, to, MOST).stream()
                .map(act -> String.join(
                        ",",
                        act.getDoneAt().toString(),
                        cell(act.getWho()),
                        act.getKind().name(),
                        cell(act.getWords()),
                        cell(act.getAddress()) + "\r\n"))
                .collect(Collectors.joining("", "at,who,kind,words,address\r\n", ""));
        return ResponseEntity.ok()
                .contentType(CSV)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("what-was-done.csv")
                                .build()
                                .toString())
                .body(rows.getBytes(StandardCharsets.UTF_8));
    }

    /** What a spreadsheet would take for a formula is marked as text. */
    private static String cell(String text) {
        String marked = text.matches("(?s)[=+\\-@\\t\\r].*") ? "'" + text : text;
        return "\"" + marked.replace("\"", "\"\"") + "\"";
    }

    private List<Act> found(List<String> kind, String who, String words, String from, String to, int most) {
        LocalDate first = day(from);
        LocalDate last = day(to);
        return log.found(
                kinds(kind),
                who.strip(),
                words.strip(),
                first == null
                        ? Instant.EPOCH
                        : first.atStartOfDay(ZoneOffset.UTC).toInstant(),
                last == null
                        ? NEVER
                        : last.plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant(),
                most);
    }

    /** Kinds that there are; what is none is left out. */
    private static Set<Act.Kind> kinds(List<String> names) {
        Set<Act.Kind> kinds = EnumSet.noneOf(Act.Kind.class);
        for (Act.Kind kind : Act.Kind.values()) if (names.contains(kind.name())) kinds.add(kind);
        return kinds;
    }

    /** A day that is written as ISO 8601 has it, of years with four digits; null for none. */
    private static LocalDate day(String text) {
        if (!text.matches("\\d{4}-\\d{2}-\\d{2}")) return null;
        try {
            LocalDate day = LocalDate.parse(text);
            return day.getYear() < 1 || day.getYear() > 9000 ? null : day;
        } catch (DateTimeException odd) {
            return null;
        }
    }
}
