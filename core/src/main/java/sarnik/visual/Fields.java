package sarnik.visual;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntToDoubleFunction;
import sarnik.data.ColumnWords;
import sarnik.data.Format;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.data.Template;
import sarnik.language.Language;
import sarnik.query.Measure;
import sarnik.query.TimeStep;
import sarnik.scale.ValueWords;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** What stands for the fields of templates. */
public final class Fields {

    /** What is read where a value is missing. */
    private static final String MISSING = "–";

    private static final int MOST_DECIMALS = 4;

    private final LoadedDataset dataset;
    private final Set<String> amounts;

    /** The fields that are columns of a dataset. */
    public Fields(LoadedDataset dataset) {
        this.dataset = dataset;
        this.amounts = Set.copyOf(Telling.amounts(dataset));
    }

    /**
     * A figure in place of a field that goes by the words of a measure: {@code {sum of litres}}.
     *
     * @param value the value of each measure by its number
     * @return null where no measure goes by these words, or the field's form is no way to write a number
     */
    public static String figure(
            Template.Field field, LoadedDataset dataset, List<Measure> measures, IntToDoubleFunction value) {
        for (int m = 0; m < measures.size(); m++) {
            Measure measure = measures.get(m);
            if (!ColumnWords.names(measure).stream().anyMatch(field::is)) continue;
            Optional<Format> format = field.form() == null ? Optional.empty() : Format.parse(field.form());
            if (field.form() != null && format.isEmpty()) return null;
            return Written.of(dataset, measure, format.orElse(null)).full(value.applyAsDouble(m));
        }
        return null;
    }

    /** The column that a field goes by, by its name or by its words; empty where there is none. */
    public Optional<String> column(Template.Field field) {
        return dataset.columnNames().stream()
                .filter(name -> field.is(name) || field.is(ColumnWords.kept(name)))
                .findFirst();
    }

    /**
     * A value of a row as people read it.
     *
     * @param text the value's canonical form; null where it is missing
     * @param form how it is written: of a number as {@link Format#parse} has it, of a date or date-time a step such as
     *     {@code month} or {@code weekday}; null for the usual
     * @return null where the form does not fit the column
     */
    public String value(String column, String text, String form) {
        Column of = dataset.table().column(column);
        boolean isTime = of.type() == ColumnType.DATE || of.type() == ColumnType.TIME;
        if (form != null && isTime)
            return step(of, form)
                    .map(s -> text == null ? MISSING : moment(s, text))
                    .orElse(null);
        if (form != null) {
            Optional<Format> format = of.type().isNumber() ? Format.parse(form) : Optional.empty();
            return format.map(f -> text == null
                            ? MISSING
                            : new Written(ValueWords.NUMBER, f, false).full(Double.parseDouble(text)))
                    .orElse(null);
        }
        if (text == null) return MISSING;
        if (isTime)
            return of.type() == ColumnType.DATE
                    ? moment(TimeStep.DAY, text)
                    : moment(TimeStep.DAY, text) + ", " + text.substring(11, 16);
        return amounts.contains(column) ? amount(text) : dataset.label(column, text);
    }

    /** An amount of a row with all that stands there; one with many decimals, which somebody worked out, is rounded. */
    private static String amount(String text) {
        int point = text.indexOf('.');
        boolean asItStands = text.indexOf('E') < 0 && (point < 0 || text.length() - point - 1 <= MOST_DECIMALS);
        return asItStands ? Language.spoken().written(text) : ValueWords.NUMBER.full(Double.parseDouble(text));
    }

    private static Optional<TimeStep> step(Column column, String form) {
        for (TimeStep step : TimeStep.values())
            if (step.words().equalsIgnoreCase(form) && !(step.needsTime() && column.type() == ColumnType.DATE))
                return Optional.of(step);
        return Optional.empty();
    }

    private static String moment(TimeStep step, String text) {
        long day = LocalDate.parse(text.substring(0, 10)).toEpochDay();
        int minute = text.length() < 16
                ? 0
                : Integer.parseInt(text.substring(11, 13)) * 60 + Integer.parseInt(text.substring(14, 16));
        return StepWords.of(step, step.text(step.number(day, minute)));
    }
}
