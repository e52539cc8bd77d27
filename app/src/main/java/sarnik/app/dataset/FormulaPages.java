package sarnik.app.dataset;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.people.SignedIn;
import sarnik.app.web.PageJson;
import sarnik.app.web.RefusedException;
import sarnik.app.web.Revisions;
import sarnik.app.work.AnswerQueue;
import sarnik.data.Calculations;
import sarnik.formula.FormulaWords;
import sarnik.formula.Scope;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryException;
import sarnik.query.RowQuery;
import sarnik.query.Summary;
import sarnik.sql.Engines;
import sarnik.table.CodedColumn;
import sarnik.table.Table;

/** The page on which a dataset's formulas and standing rules are written, with their result beside them. */
@Controller
class FormulaPages {

    private static final int SHOWN_ROWS = 12;

    private final DatasetService datasets;
    private final DatasetEdits edits;
    private final AnswerQueue queue;
    private final PageJson json;

    FormulaPages(DatasetService datasets, DatasetEdits edits, AnswerQueue queue, PageJson json) {
        this.queue = queue;
        this.datasets = datasets;
        this.edits = edits;
        this.json = json;
    }

    /**
     * What an editor completes.
     *
     * @param kind column, place or function
     * @param hint its type, or how it is used
     */
    record Word(String word, String kind, String hint) {}

    @GetMapping("/datasets/{id}/formulas")
    String page(@PathVariable long id, Model model) {
        Loaded loaded = datasets.needed(id);
        model.addAttribute("dataset", loaded.dataset());
        Description said = datasets.description(id).orElseThrow(() -> RefusedException.gone("dataset"));
        model.addAttribute("revision", said.revision());
        model.addAttribute("calculationsJson", json.of(said.calculations()));
        model.addAttribute("wordsJson", json.of(words(datasets.scope(id))));
        return "formulas";
    }

    private static List<Word> words(Scope scope) {
        List<Word> words = new ArrayList<>();
        scope.columns().forEach((name, kind) -> words.add(new Word(FormulaWords.asName(name), "column", kind.words())));
        scope.places().forEach(name -> words.add(new Word(name, "place", "the row's place")));
        FormulaWords.FUNCTIONS.forEach((name, use) -> words.add(new Word(name, "function", use)));
        return words;
    }

    /**
     * A formula to try.
     *
     * @param before the formulas that stand before it, whose columns it may use
     * @param kind column, measure or rule
     */
    record Attempt(List<Calculations.Item> before, String text, String kind) {}

    /**
     * What comes of a formula.
     *
     * @param trouble what is wrong; null where it works in all rows
     * @param gives the type of its values, in words; null where it does not work
     * @param header names of the columns that are shown, the result last
     * @param rows the first rows; for a measure its value over all rows, and over the commonest values of a category
     */
    record Tried(Calculations.Trouble trouble, String gives, List<String> header, List<List<String>> rows) {}

    @PostMapping("/api/datasets/{id}/formulas/try")
    @ResponseBody
    DeferredResult<Tried> tryOut(@PathVariable long id, @RequestBody Attempt attempt, HttpServletRequest request) {
        return queue.answer(AnswerQueue.Asker.of(request), datasets.prepare(List.of(id)), ticket -> tried(id, attempt));
    }

    private Tried tried(long id, Attempt attempt) {
        if (attempt.before() != null && attempt.before().stream().anyMatch(i -> i == null || i.name() == null))
            throw new RefusedException("Each formula that stands before needs a name.");
        String name = "result";
        Set<String> taken = new LinkedHashSet<>(datasets.scope(id).columns().keySet());
        List<Calculations.Item> items = new ArrayList<>(attempt.before() == null ? List.of() : attempt.before());
        items.forEach(i -> taken.add(i.name()));
        while (taken.contains(name)) name += " ";
        boolean measure = "measure".equals(attempt.kind());
        String text = attempt.text() == null ? "" : attempt.text();
        items.add(new Calculations.Item(name, text, measure));
        String result = name;
        Calculations.Applied applied =
                edits.tryOut(id, new Calculations(items, "rule".equals(attempt.kind()) ? List.of(text) : List.of()));
        List<Calculations.Trouble> own = applied.troubles().stream()
                .filter(t -> t.of().equals(result) || t.of().equals(text))
                .toList();
        Calculations.Trouble trouble = own.isEmpty() ? null : own.get(own.size() - 1);
        if (measure)
            return applied.measures().containsKey(result)
                    ? measured(id, applied, result, trouble)
                    : new Tried(trouble, null, List.of(), List.of());
        if (applied.table().find(result).isEmpty()) return new Tried(trouble, null, List.of(), List.of());
        return rows(applied.table(), result, text, trouble);
    }

    /** The first rows with the columns that the formula names, and its result. */
    private static Tried rows(Table table, String result, String text, Calculations.Trouble trouble) {
        List<String> header = new ArrayList<>(table.names().stream()
                .filter(n -> !n.startsWith("@")
                        && !n.equals(result)
                        && text.toLowerCase(java.util.Locale.ROOT).contains(n.toLowerCase(java.util.Locale.ROOT)))
                .limit(5)
                .toList());
        header.add(result);
        if (table.staying() != null)
            return new Tried(trouble, table.column(result).type().words(), header, there(table, header));
        List<List<String>> rows = ShownRows.first(
                table.pick(IntStream.range(0, Math.min(SHOWN_ROWS, table.rows()))
                                .toArray())
                        .only(header),
                SHOWN_ROWS);
        return new Tried(trouble, table.column(result).type().words(), header, rows);
    }

    /** The first rows of those that stay elsewhere. */
    private static List<List<String>> there(Table table, List<String> header) {
        try {
            return new Engines()
                    .rows(table, new RowQuery(List.of(), header, List.of(), "", 0, SHOWN_ROWS)).cells().stream()
                            .map(cells -> Arrays.stream(cells)
                                    .map(cell -> cell == null ? "" : cell)
                                    .toList())
                            .toList();
        } catch (QueryException cannot) {
            throw new RefusedException(cannot.getMessage());
        }
    }

    /**
     * The measure over all rows, and by the category with the fewest values; where it goes along columns, by these.
     */
    private Tried measured(long id, Calculations.Applied applied, String result, Calculations.Trouble trouble) {
        FormulaMeasure formula = applied.measures().get(result);
        List<List<String>> rows = new ArrayList<>();
        List<String> by = formula.keys().stream().sorted().toList();
        if (by.isEmpty()) {
            rows.add(List.of(
                    "all rows",
                    formula.words().apply(measured(applied, result, List.of()).value(0, 0))));
            by = fewest(datasets.needed(id).columns(), applied.table()).stream().toList();
        }
        if (!by.isEmpty()) {
            Frame frame = measured(applied, result, by);
            for (int g = 0; g < Math.min(SHOWN_ROWS, frame.size()); g++) {
                int group = g;
                rows.add(List.of(
                        frame.keys().stream()
                                .map(k -> k[group] == null ? "(missing)" : k[group])
                                .collect(Collectors.joining(", ")),
                        formula.words().apply(frame.value(0, g))));
            }
        }
        return new Tried(trouble, "a measure", List.of(String.join(", ", by), "result"), rows);
    }

    private static Frame measured(Calculations.Applied applied, String result, List<String> by) {
        return new Engines()
                .answer(
                        applied.table(),
                        Query.of(List.of(), by, List.of(new Measure(Summary.FORMULA, result)))
                                .with(applied.measures()));
    }

    /** The category with the fewest values, of those with several. */
    private static Optional<String> fewest(Collection<String> columns, Table table) {
        return columns.stream()
                .filter(n -> table.column(n) instanceof CodedColumn c
                        && c.dictionary().size() > 1)
                .min(Comparator.comparingInt(
                        n -> ((CodedColumn) table.column(n)).dictionary().size()));
    }

    @PutMapping("/api/datasets/{id}/calculations")
    @ResponseBody
    ResponseEntity<Void> keep(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody Calculations calculations,
            @AuthenticationPrincipal SignedIn person) {
        return Revisions.kept(edits.calculate(id, Revisions.of(ifMatch), calculations, person));
    }
}
