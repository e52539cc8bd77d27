package sarnik.app.dataset;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import sarnik.format.TableFile;
import sarnik.table.JoinedSource;
import sarnik.table.Reading;
import sarnik.table.RowSource;
import sarnik.table.Shaping;
import sarnik.table.TableReader;

/**
 * One or several files that are read as one table.
 *
 * @param first the first of them
 * @param rows of all
 */
record TableFiles(TableFile first, RowSource rows, Shaping shaping) {

    /**
     * @param names what each file is called, to say which one does not fit
     * @throws sarnik.table.UnreadableTableException when they hold no table, or are not of one shape
     */
    static TableFiles open(List<Path> files, List<String> names, Intake intake) throws IOException {
        List<RowSource> rows = new ArrayList<>();
        TableFile first = null;
        for (Path file : files) {
            TableFile opened = TableFile.open(file, intake.choices());
            if (first == null) first = opened;
            rows.add(opened.rows());
        }
        return new TableFiles(first, rows.size() == 1 ? rows.get(0) : new JoinedSource(rows, names), intake.shaping());
    }

    /** How many columns its table has at most. */
    int columns() {
        return rows.header().size() - shaping.dropped().size();
    }

    /**
     * @param most bytes that its columns may take; of more rows than fit, some are held
     * @throws sarnik.table.UnreadableTableException when no table comes of it
     */
    Reading read(TableReader.Progress progress, long most) throws IOException {
        return new TableReader(progress).read(rows, shaping, most);
    }
}
