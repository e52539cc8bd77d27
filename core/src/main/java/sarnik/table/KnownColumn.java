package sarnik.table;

import java.util.Optional;

/** A column that keeps what was once found out of its values, which never change. */
abstract sealed class KnownColumn implements Column
        permits CodedColumn, WholeColumn, DecimalColumn, DateColumn, TimeColumn {

    private volatile Boolean complete;
    private volatile Optional<Extremes> extremes;

    @Override
    public boolean isComplete() {
        Boolean known = complete;
        if (known == null) {
            known = true;
            for (int row = 0; row < size() && known; row++) known = !isMissing(row);
            complete = known;
        }
        return known;
    }

    @Override
    public Optional<Extremes> extremes() {
        Optional<Extremes> known = extremes;
        if (known == null) {
            known = Extremes.of(this);
            extremes = known;
        }
        return known;
    }
}
