package sarnik.table;

import java.util.List;

/**
 * A column of dictionary codes: text, and yes/no (whose dictionary is always "no", "yes").
 *
 * @param type {@link ColumnType#TEXT} or {@link ColumnType#YES_NO}
 * @param codes one code a row, -1 for missing
 * @param dictionary the distinct values by code
 */
public record CodedColumn(ColumnType type, Codes codes, List<String> dictionary) implements Column {

    public static final List<String> NO_YES = List.of("no", "yes");

    public CodedColumn {
        if (type != ColumnType.TEXT && type != ColumnType.YES_NO) {
            throw new IllegalArgumentException("A coded column holds text or yes/no, not " + type.words());
        }
        dictionary = List.copyOf(dictionary);
    }

    @Override
    public int size() {
        return codes.size();
    }

    @Override
    public boolean isMissing(int row) {
        return codes.get(row) < 0;
    }

    @Override
    public String text(int row) {
        int code = codes.get(row);
        return code < 0 ? null : dictionary.get(code);
    }

    @Override
    public long bytes() {
        long words = 0;
        for (String word : dictionary) words += 48 + 2L * word.length();
        return codes.bytes() + words;
    }
}
