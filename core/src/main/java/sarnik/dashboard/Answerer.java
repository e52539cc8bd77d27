package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import sarnik.query.Frame;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.RowPage;
import sarnik.table.Table;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.AskedRows;
import sarnik.visual.Picked;

/**
 * Answers the queries of plans together: equal ones once, those of one narrowing in one pass over the rows, and those
 * that were answered before from what is kept.
 *
 * @param engine answers what is not kept
 * @param kept keeps answers by the version of the rows and the query
 */
public record Answerer(QueryEngine engine, AnswerStore kept) {

    /** One that keeps nothing. */
    public Answerer(QueryEngine engine) {
        this(engine, AnswerStore.NOTHING);
    }

    /**
     * @param check is called between passes, and may throw to give the work up
     */
    Answers answer(Collection<Asked> asked, Collection<AskedRows> rows, Runnable check) {
        Map<Asked, Frame> frames = new HashMap<>();
        Map<Asked, QueryException> misfits = new HashMap<>();
        Map<Table, List<Asked>> open = new LinkedHashMap<>();
        for (Asked one : asked) {
            Frame known = kept.find(one.dataset().table(), one.query());
            if (known != null) frames.put(one, known);
            else
                open.computeIfAbsent(one.dataset().table(), t -> new ArrayList<>())
                        .add(one);
        }
        open.forEach((table, some) -> {
            check.run();
            answer(table, some, frames, misfits);
        });
        Map<AskedRows, Supplier<RowPage>> pages = new IdentityHashMap<>();
        for (AskedRows one : rows) {
            check.run();
            pages.computeIfAbsent(one, this::page);
        }
        return new Answers() {
            @Override
            public Frame of(Asked one) {
                if (misfits.containsKey(one)) throw misfits.get(one);
                return known(frames.get(one));
            }

            @Override
            public RowPage rows(AskedRows one) {
                return known(pages.get(one)).get();
            }
        };
    }

    private static <T> T known(T answer) {
        if (answer == null) throw new IllegalStateException("A plan draws of what it has not asked");
        return answer;
    }

    /** The rows, or what is thrown when they are looked at: a question that does not fit concerns who asked it. */
    private Supplier<RowPage> page(AskedRows asked) {
        try {
            RowPage page = engine.rows(asked.dataset().table(), asked.query());
            return () -> page;
        } catch (QueryException misfit) {
            return () -> {
                throw misfit;
            };
        }
    }

    private void answer(Table table, List<Asked> some, Map<Asked, Frame> frames, Map<Asked, QueryException> misfits) {
        List<Query> queries = some.stream().map(Asked::query).toList();
        try {
            List<Frame> answers = engine.answer(table, queries);
            for (int i = 0; i < answers.size(); i++) {
                frames.put(some.get(i), answers.get(i));
                kept.keep(table, queries.get(i), answers.get(i));
            }
        } catch (QueryException misfit) {
            if (some.size() == 1) {
                misfits.put(some.get(0), misfit);
                return;
            }
            // One of them does not fit: each is asked by itself, so that the others stand.
            for (Asked one : some) answer(table, List.of(one), frames, misfits);
        }
    }

    /** The values that a pick means. */
    List<String> values(Picked picked) {
        if (picked instanceof Picked.OneOf of) return of.values();
        if (picked instanceof Picked.Among among) {
            Frame frame = answer(List.of(among.asked()), List.of(), () -> {}).of(among.asked());
            return Arrays.stream(frame.keys().get(among.key()))
                    .filter(Objects::nonNull)
                    .toList();
        }
        return List.of();
    }
}
