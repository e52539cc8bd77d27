package sarnik.table;

/** Gathers the cells of one column, written in one form, into a column. */
final class ColumnBuilder {

    private final CellForm form;
    private final boolean all;
    private final boolean tidy;
    private final ColumnValues values;

    /** Values of texts as bits; null for columns of text, which keep each text once themselves. */
    private final Recent recent;

    /**
     * @param rows the number of rows to come, so that the arrays are made once; there may be more
     */
    ColumnBuilder(CellForm form, int rows) {
        this(form, false, false, rows);
    }

    /**
     * @param all whether what is written in another form of the same type is read too, as of a type that was set by
     *     hand
     * @param tidy whether texts are taken without what cannot be seen
     */
    ColumnBuilder(CellForm form, boolean all, boolean tidy, int rows) {
        this.form = form;
        this.all = all;
        this.tidy = tidy;
        this.values = new ColumnValues(form.type(), rows);
        this.recent = form.type() == ColumnType.TEXT ? null : new Recent();
    }

    /** A builder for values in the canonical text form of {@link Column#text}. */
    static ColumnBuilder canonical(ColumnType type, int rows) {
        return new ColumnBuilder(
                switch (type) {
                    case TEXT -> CellForm.TEXT;
                    case WHOLE -> CellForm.WHOLE;
                    case DECIMAL -> CellForm.DECIMAL_POINT;
                    case DATE -> CellForm.DATE_ISO;
                    case TIME -> CellForm.TIME_ISO;
                    case YES_NO -> CellForm.YES_NO;
                },
                rows);
    }

    /** Whether another takes cells in as this one does. */
    boolean isAs(ColumnBuilder other) {
        return other != null && form == other.form && all == other.all && tidy == other.tidy;
    }

    ColumnType type() {
        return form.type();
    }

    /** Adds a cell of whose form nothing is known. */
    boolean add(String text) {
        return add(text, 0);
    }

    /**
     * Adds a cell.
     *
     * @param text the trimmed cell; empty means missing
     * @param fits forms that it is known to be written in, a bit for each
     * @return false where the text is not written in the column's form: the value is then missing
     */
    boolean add(String text, long fits) {
        if (text.isEmpty()) {
            add(form, text, false);
            return true;
        }
        if (recent == null) {
            if (tidy) values.addPlain(text);
            else values.addText(text);
            return true;
        }
        int slot = recent.slot(text);
        if (recent.holds(slot, text)) {
            add(recent.number(slot));
            return true;
        }
        return add(text, tidy ? CellText.plain(text) : text, fits, slot);
    }

    /**
     * @param written as the cell has it
     * @param slot where its value is kept
     */
    private boolean add(String written, String text, long fits, int slot) {
        if ((fits & form.bit()) != 0 || form.fits(text)) {
            long value = value(form, text);
            recent.keep(slot, written, value);
            add(value);
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
            // A number in a column of dates that are written as such is taken for no date.
            String bare = !all || other.type() != form.type() || other.isDateByName()
                    ? null
                    : other.fits(text) ? text : bare(other, text);
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
        if (form.type() == ColumnType.TEXT) values.addText(text);
        else
            add(
                    readable
                            ? value(written, text)
                            : switch (form.type()) {
                                case WHOLE -> WholeColumn.MISSING;
                                case DECIMAL -> Double.doubleToRawLongBits(Double.NaN);
                                case DATE -> DateColumn.MISSING;
                                case TIME -> TimeColumn.MISSING;
                                default -> -1;
                            });
    }

    /** The bits of a value that is written in a form. */
    private long value(CellForm written, String text) {
        return switch (form.type()) {
            case WHOLE -> Long.parseLong(text);
            case DECIMAL -> Double.doubleToRawLongBits(written.decimal(text));
            case DATE -> written.date(text);
            case TIME -> written.time(text);
            case YES_NO -> CellForm.yesNo(text);
            case TEXT -> throw new IllegalStateException("texts have no bits");
        };
    }

    private void add(long bits) {
        switch (form.type()) {
            case WHOLE, TIME -> values.addLong(bits);
            case DECIMAL -> values.addDouble(Double.longBitsToDouble(bits));
            default -> values.addInt((int) bits);
        }
    }

    /** Bytes that it takes now, about. */
    long bytes() {
        return values.bytes();
    }

    Column build() {
        return values.build();
    }
}
