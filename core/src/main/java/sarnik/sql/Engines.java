package sarnik.sql;

import java.util.List;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.InMemoryEngine;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.query.Stage;
import sarnik.table.Table;

/** Asks each table where its rows are: in memory, or in the database in which they stay. */
public final class Engines implements QueryEngine {

    private final InMemoryEngine memory;
    private final SqlEngine databases = new SqlEngine();

    /** @param memory answers for tables that hold their rows */
    public Engines(InMemoryEngine memory) {
        this.memory = memory;
    }

    /** One that uses all cores for tables in memory. */
    public Engines() {
        this(new InMemoryEngine());
    }

    private QueryEngine of(Table table) {
        return table.staying() == null ? memory : databases;
    }

    @Override
    public Frame answer(Table table, Query query) {
        return answer(table, List.of(query)).get(0);
    }

    /** What asks about rows of another table is asked first, wherever those are. */
    @Override
    public List<Frame> answer(Table table, List<Query> queries) {
        return of(table)
                .answer(
                        table,
                        queries.stream()
                                .map(q -> q.narrowed(resolved(q.stages())))
                                .toList());
    }

    @Override
    public RowPage rows(Table table, RowQuery query) {
        return of(table)
                .rows(
                        table,
                        new RowQuery(
                                resolved(query.stages()),
                                query.columns(),
                                query.order(),
                                query.find(),
                                query.from(),
                                query.count()));
    }

    @Override
    public Taken taken(Table table, List<Stage> stages, List<String> columns, int most) {
        return of(table).taken(table, resolved(stages), columns, most);
    }

    @Override
    public List<String> keys(Condition.Among among) {
        if (among.table().staying() != null) return QueryEngine.super.keys(among);
        Query plain = among.query().narrowed(resolved(among.query().stages()));
        return memory.keys(
                plain.equals(among.query())
                        ? among
                        : new Condition.Among(
                                among.column(),
                                among.table(),
                                plain,
                                among.key(),
                                among.not(),
                                among.step(),
                                among.through()));
    }
}
