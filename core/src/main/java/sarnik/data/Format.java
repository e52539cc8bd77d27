package sarnik.data;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How figures are written.
 *
 * @param decimals how many; null for as many as their size asks for
 * @param percent whether they are shares, written per cent; null for no
 * @param whole whether thousands are written out instead of as k and M; null for no
 * @param before what stands before them, such as a currency; null for nothing
 * @param after what stands behind them, such as a unit; null for nothing
 */
public record Format(Integer decimals, Boolean percent, Boolean whole, String before, String after) {

    private static final Pattern FORM = Pattern.compile("([^0.%]*)0(?:\\.(0{1,9}))?(\\s*%)?(.*)");

    /**
     * A format as it is written behind the colon of a field: a nought, as many noughts behind a point as there are to
     * be decimals, and what stands before and behind, such as {@code 0.00 €} or {@code 0 %}.
     *
     * @return empty where it is no such form
     */
    public static Optional<Format> parse(String form) {
        Matcher found = FORM.matcher(form);
        if (!found.matches()) return Optional.empty();
        return Optional.of(new Format(
                found.group(2) == null ? 0 : found.group(2).length(),
                found.group(3) != null,
                true,
                found.group(1),
                found.group(4).strip()));
    }
}
