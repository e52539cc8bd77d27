package sarnik.app.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.dashboard.Dashboard;
import sarnik.data.Datasets;
import sarnik.data.Formulated;
import sarnik.data.LoadedDataset;
import sarnik.data.SheetFormula;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Summary;
import sarnik.reading.OnceDatasets;
import sarnik.sql.Engines;
import sarnik.state.ReaderState;

/** Tries measures of a dashboard's own out while they are written. */
@RestController
class FormulaApi {

    private static final QueryEngine ENGINE = new Engines();
    private static final int LONGEST = 2000;

    private final DashboardService dashboards;
    private final AnswerQueue queue;

    FormulaApi(DashboardService dashboards, AnswerQueue queue) {
        this.dashboards = dashboards;
        this.queue = queue;
    }

    /**
     * @param formula id of the formula whose text is tried out
     */
    record Attempt(String formula, String text) {}

    /**
     * @param trouble what is wrong with it, or that it cannot be worked out in some rows; null where nothing is
     * @param value its value over all rows, for what readers set at first; null where it has none
     */
    record Tried(SheetFormula.Trouble trouble, String value) {}

    @PostMapping("/api/dashboards/{id}/formulas/try")
    DeferredResult<Tried> tryOut(
            @PathVariable long id,
            @RequestBody Attempt attempt,
            @AuthenticationPrincipal SignedIn person,
            HttpServletRequest request) {
        Reading reading = dashboards.compose(id, person).reading();
        Dashboard dashboard = reading.dashboard();
        SheetFormula of =
                attempt.formula() == null ? null : dashboard.formulas().get(attempt.formula());
        if (of == null) throw new RefusedException("This formula has been taken away from the dashboard.");
        if (attempt.text() == null || attempt.text().isBlank() || attempt.text().length() > LONGEST)
            throw new RefusedException("A formula has 1 to %,d characters.".formatted(LONGEST));
        SheetFormula formula = new SheetFormula(of.dataset(), of.name(), attempt.text());
        return queue.answer(
                AnswerQueue.Asker.of(request).each(),
                reading.datasets().prepare(List.of(of.dataset())),
                ticket -> tried(reading, formula));
    }

    private Tried tried(Reading reading, SheetFormula formula) {
        SheetFormula.Scene scene = OnceDatasets.scene(
                OnceDatasets.of(reading.datasets()), reading.dashboard(), ReaderState.NOTHING, ENGINE, LocalDate.now());
        Datasets once = Formulated.of(scene, List.of(formula));
        if (!(once.find(formula.dataset()) instanceof Datasets.Found.Ready ready))
            throw new RefusedException("Its dataset has gone. Choose another one.");
        LoadedDataset dataset = ready.dataset();
        Optional<SheetFormula.Trouble> trouble = formula.trouble(dataset, scene);
        if (trouble.isPresent()) return new Tried(trouble.get(), null);
        FormulaMeasure measure = dataset.measures().get(formula.name());
        SheetFormula.Trouble some = formula.without(dataset, scene)
                .map(words -> new SheetFormula.Trouble(words, -1, -1))
                .orElse(null);
        if (!measure.keys().isEmpty()) return new Tried(some, null);
        Measure asked = new Measure(Summary.FORMULA, formula.name());
        Frame all = dataset.answer(new Engines(), Query.of(dataset.rules(), List.of(), List.of(asked)));
        return new Tried(some, measure.read().full(all.value(0, 0)));
    }
}
