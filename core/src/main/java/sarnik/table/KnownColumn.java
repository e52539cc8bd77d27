package sarnik.table;

import java.util.Optional;

/** A column that keeps what was once found out of its values, which never change. */
abstract sealed class KnownColumn implements Column
        permits CodedColumn, WholeColumn, DecimalColumn, DateColumn, TimeColumn, SummedColumn {

    private final int[] weights;

    private volatile Boolean complete;
    private volatile Optional<Extremes> extremes;
    private volatile Zones zones;

    /** @param weights how many rows each row stands for; null where each stands for itself */
    KnownColumn(int[] weights) {
        this.weights = weights;
    }

    @Override
    public int weight(int row) {
        return weights == null ? 1 : weights[row];
    }

    @Override
    public int[] weights() {
        return weights;
    }

    /** The zones of its numbers; looked through when they are first asked for. */
    Zones zones(Wholes numbers) {
        Zones known = zones;
        if (known == null) {
            known = new Zones(numbers);
            zones = known;
        }
        return known;
    }

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
