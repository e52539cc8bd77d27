package sarnik.table;

/** Gathers the cells of one column, written in one form, into a column. */
final class ColumnBuilder {

    private final CellForm form;
    private final ColumnValues values;

    /**
     * @param rows the number of rows to come, so that the arrays are made once
     */
    ColumnBuilder(CellForm form, int rows) {
        this.form = form;
        this.values = new ColumnValues(form.type(), rows);
    }

    /** A builder for values in the canonical text form of {@link Column#text}. */
    static ColumnBuilder canonical(ColumnType type, int rows) {
        return new ColumnBuilder(switch (type) {
            case TEXT -> CellForm.TEXT;
            case WHOLE -> CellForm.WHOLE;
            case DECIMAL -> CellForm.DECIMAL_POINT;
            case DATE -> CellForm.DATE_ISO;
            case TIME -> CellForm.TIME_ISO;
            case YES_NO -> CellForm.YES_NO;
        }, rows);
    }

    ColumnType type() {
        return form.type();
    }

    /**
     * Adds a cell.
     *
     * @param text the trimmed cell; empty means missing
     * @return false where the text is not written in the column's form: the value is then missing
     */
    boolean add(String text) {
        boolean filled = !text.isEmpty();
        boolean readable = filled && form.fits(text);
        switch (form.type()) {
            case TEXT -> values.addText(text);
            case YES_NO -> values.addInt(filled ? CellForm.yesNo(text) : -1);
            case WHOLE -> values.addLong(readable ? Long.parseLong(text) : WholeColumn.MISSING);
            case DECIMAL -> values.addDouble(readable ? form.decimal(text) : Double.NaN);
            case DATE -> values.addInt(filled ? form.date(text) : DateColumn.MISSING);
            case TIME -> values.addLong(filled ? CellForm.time(text) : TimeColumn.MISSING);
        }
        return !filled || readable;
    }

    Column build() {
        return values.build();
    }
}
