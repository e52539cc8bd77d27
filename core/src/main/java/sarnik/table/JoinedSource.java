package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Several files of one shape as one: the rows of each below those of the one before, columns matched by name. */
public final class JoinedSource extends RowsOver {

    private final List<RowSource> parts;
    /** For each part and each column of the first: which column of the part it is. */
    private final List<int[]> columns = new ArrayList<>();

    /**
     * @param parts at least one
     * @param names what each part is called, to say which one does not fit
     * @throws UnreadableTableException when one has other columns than the first
     */
    public JoinedSource(List<RowSource> parts, List<String> names) {
        super(parts.get(0));
        this.parts = List.copyOf(parts);
        List<String> first = names(parts.get(0));
        for (int p = 0; p < parts.size(); p++) {
            List<String> own = names(parts.get(p));
            Set<String> lacking = new LinkedHashSet<>(first);
            own.forEach(lacking::remove);
            Set<String> more = new LinkedHashSet<>(own);
            first.forEach(more::remove);
            if (!lacking.isEmpty() || !more.isEmpty()) {
                throw new UnreadableTableException("“%s” is not of the same shape as “%s”:%s%s Bring it in by itself."
                        .formatted(
                                names.get(p),
                                names.get(0),
                                lacking.isEmpty() ? "" : " it lacks " + String.join(", ", lacking) + ".",
                                more.isEmpty() ? "" : " It has " + String.join(", ", more) + " besides."));
            }
            int[] order = first.stream().mapToInt(own::indexOf).toArray();
            checkUnits(first, parts, p, order, names);
            columns.add(order);
        }
    }

    /** Names of a part's columns, by which they are matched: without what cannot be seen, which is no other shape. */
    private static List<String> names(RowSource part) {
        return ColumnNames.unique(part.header(), true, new TroubleLog());
    }

    /** @throws UnreadableTableException when a column is measured in another unit than in the first part */
    private static void checkUnits(
            List<String> columns, List<RowSource> parts, int part, int[] order, List<String> names) {
        List<String> units = parts.get(0).units();
        List<String> own = parts.get(part).units();
        for (int i = 0; i < Math.min(units.size(), order.length); i++) {
            String there = order[i] < own.size() ? own.get(order[i]) : "";
            if (!there.isEmpty() && !units.get(i).isEmpty() && !there.equals(units.get(i)))
                throw new UnreadableTableException("“%s” has “%s” in %s, “%s” in %s. Bring it in by itself."
                        .formatted(names.get(part), columns.get(i), there, names.get(0), units.get(i)));
        }
    }

    @Override
    public void each(Visitor visitor) throws IOException {
        for (int p = 0; p < parts.size(); p++) {
            int[] order = columns.get(p);
            parts.get(p)
                    .each((line, cells) -> visitor.row(line, new Cells() {
                        @Override
                        public int count() {
                            return Math.max(cells.count(), order.length);
                        }

                        @Override
                        public String get(int index) {
                            int at = index < order.length ? order[index] : index;
                            return at < cells.count() ? cells.get(at) : "";
                        }

                        @Override
                        public boolean isMerged() {
                            return cells.isMerged();
                        }

                        @Override
                        public boolean isMerged(int index) {
                            return cells.isMerged(index < order.length ? order[index] : index);
                        }

                        @Override
                        public boolean isHidden() {
                            return cells.isHidden();
                        }
                    }));
        }
    }

    @Override
    public String words() {
        return parts.size() == 1
                ? parts.get(0).words()
                : parts.size() + " files, the first " + parts.get(0).words();
    }
}
