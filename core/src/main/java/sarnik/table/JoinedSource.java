package sarnik.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Several files of one shape as one: the rows of each below those of the one before, columns matched by name. */
public final class JoinedSource implements RowSource {

    private final List<RowSource> parts;
    /** For each part and each column of the first: which column of the part it is. */
    private final List<int[]> columns = new ArrayList<>();

    /**
     * @param parts at least one
     * @param names what each part is called, to say which one does not fit
     * @throws UnreadableTableException when one has other columns than the first
     */
    public JoinedSource(List<RowSource> parts, List<String> names) {
        this.parts = List.copyOf(parts);
        List<String> first = ColumnNames.unique(parts.get(0).header(), new TroubleLog());
        for (int p = 0; p < parts.size(); p++) {
            List<String> own = ColumnNames.unique(parts.get(p).header(), new TroubleLog());
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
            columns.add(first.stream().mapToInt(own::indexOf).toArray());
        }
    }

    @Override
    public List<String> header() {
        return parts.get(0).header();
    }

    @Override
    public int positionAt() {
        return parts.get(0).positionAt();
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
                    }));
        }
    }

    @Override
    public Shaping.DecimalMark usualMark() {
        return parts.get(0).usualMark();
    }

    @Override
    public String words() {
        return parts.size() == 1
                ? parts.get(0).words()
                : parts.size() + " files, the first " + parts.get(0).words();
    }
}
