package sarnik.table;

import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * A column of dictionary codes: text, and yes/no (whose dictionary is always "no", "yes").
 */
public final class CodedColumn extends KnownColumn {

    public static final List<String> NO_YES = List.of("no", "yes");

    private final ColumnType type;
    private final Codes codes;
    private final List<String> dictionary;
    private volatile int[] commonest;

    /**
     * @param type {@link ColumnType#TEXT} or {@link ColumnType#YES_NO}
     * @param codes one code a row, -1 for missing
     * @param dictionary the distinct values by code
     */
    public CodedColumn(ColumnType type, Codes codes, List<String> dictionary) {
        this(type, codes, dictionary, null);
    }

    private CodedColumn(ColumnType type, Codes codes, List<String> dictionary, int[] weights) {
        super(weights);
        if (type != ColumnType.TEXT && type != ColumnType.YES_NO) {
            throw new IllegalArgumentException("A coded column holds text or yes/no, not " + type.words());
        }
        this.type = type;
        this.codes = codes;
        this.dictionary = List.copyOf(dictionary);
    }

    @Override
    public CodedColumn weighted(int[] weights) {
        return new CodedColumn(type, codes, dictionary, weights);
    }

    /**
     * A column of yes and no.
     *
     * @param codes 1 for yes, 0 for no, -1 for missing, one a row
     */
    public static CodedColumn yesNo(byte[] codes) {
        return new CodedColumn(ColumnType.YES_NO, new Codes.Bytes(codes), NO_YES);
    }

    @Override
    public ColumnType type() {
        return type;
    }

    public Codes codes() {
        return codes;
    }

    public List<String> dictionary() {
        return dictionary;
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

    /**
     * The same values, of which another count says which are the commonest.
     * @param order all codes, the commonest first
     */
    public CodedColumn commonest(int[] order) {
        CodedColumn same = new CodedColumn(type, codes, dictionary, weights());
        same.commonest = order;
        return same;
    }

    /**
     * The codes, the commonest first, equally common ones by their words; counted when they are first asked for.
     */
    public int[] commonest() {
        int[] known = commonest;
        if (known == null) {
            long[] counts = new long[dictionary.size()];
            for (int row = 0; row < size(); row++) if (codes.get(row) >= 0) counts[codes.get(row)] += weight(row);
            known = IntStream.range(0, counts.length)
                    .boxed()
                    .sorted(Comparator.comparingLong((Integer code) -> -counts[code])
                            .thenComparing(dictionary::get))
                    .mapToInt(code -> code)
                    .toArray();
            commonest = known;
        }
        return known;
    }
}
