package sarnik.table;

import java.util.List;

/** Rows that are made of the rows of a file, and say of it what it says. */
public abstract class RowsOver implements RowSource {

    protected final RowSource file;

    protected RowsOver(RowSource file) {
        this.file = file;
    }

    @Override
    public List<String> header() {
        return file.header();
    }

    @Override
    public List<String> units() {
        return file.units();
    }

    @Override
    public int positionAt() {
        return file.positionAt();
    }

    @Override
    public Shaping.DecimalMark usualMark() {
        return file.usualMark();
    }

    @Override
    public String words() {
        return file.words();
    }
}
