package sarnik.table;

/** Gathers the cells of one column, written in one form, into a column. */
final class ColumnBuilder {

    private final CellForm form;
    private final boolean all;
    private final ColumnValues values;

    /**
     * @param rows the number of rows to come, so that the arrays are made once
     */
    ColumnBuilder(CellForm form, int rows) {
        this(form, false, rows);
    }

    /**
     * @param all whether what is written in another form of the same type is read too, as of a type that was set by hand
     */
    ColumnBuilder(CellForm form, boolean all, int rows) {
        this.form = form;
        this.all = all;
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
        if (text.isEmpty()) {
            add(form, text, false);
            return true;
        }
        if (form.fits(text)) {
            add(form, text, true);
            return true;
        }
        if (form.type().isNumber()) {
            WrittenAmount amount = WrittenAmount.of(text);
            if (amount != null && form.fits(amount.number())) {
                add(form, amount.number(), true);
                return true;
            }
        }
        for (CellForm other : CellForm.values()) {
            String bare = !all || other.type() != form.type() ? null : other.fits(text) ? text : bare(other, text);
            if (bare == null) continue;
            add(other, bare, true);
            return true;
        }
        add(form, text, false);
        return false;
    }

    private static String bare(CellForm other, String text) {
        WrittenAmount amount = other.type().isNumber() ? WrittenAmount.of(text) : null;
        return amount != null && other.fits(amount.number()) ? amount.number() : null;
    }

    private void add(CellForm written, String text, boolean readable) {
        switch (form.type()) {
            case TEXT -> values.addText(text);
            case YES_NO -> values.addInt(readable ? CellForm.yesNo(text) : -1);
            case WHOLE -> values.addLong(readable ? Long.parseLong(text) : WholeColumn.MISSING);
            case DECIMAL -> values.addDouble(readable ? written.decimal(text) : Double.NaN);
            case DATE -> values.addInt(readable ? written.date(text) : DateColumn.MISSING);
            case TIME -> values.addLong(readable ? written.time(text) : TimeColumn.MISSING);
        }
    }

    Column build() {
        return values.build();
    }
}
