package sarnik.app.dataset;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import sarnik.format.TableFile;
import sarnik.table.JoinedSource;
import sarnik.table.Reading;
import sarnik.table.RowSource;
import sarnik.table.TableReader;

/**
 * One or several files read as one table.
 *
 * @param first the first of them
 * @param reading what came of reading all
 */
record TableFiles(TableFile first, Reading reading) {

    /**
     * @param names what each file is called, to say which one does not fit
     * @throws sarnik.table.UnreadableTableException when they hold no table, or are not of one shape
     */
    static TableFiles read(List<Path> files, List<String> names, Intake intake, TableReader.Progress progress)
            throws IOException {
        List<RowSource> rows = new ArrayList<>();
        TableFile first = null;
        for (Path file : files) {
            TableFile opened = TableFile.open(file, intake.choices());
            if (first == null) first = opened;
            rows.add(opened.rows());
        }
        RowSource all = rows.size() == 1 ? rows.get(0) : new JoinedSource(rows, names);
        return new TableFiles(first, new TableReader(progress).read(all, intake.shaping()));
    }
}
