package sarnik.data;

/**
 * How figures are written.
 *
 * @param decimals how many; null for as many as their size asks for
 * @param percent whether they are shares, written per cent; null for no
 * @param whole whether thousands are written out instead of as k and M; null for no
 * @param before what stands before them, such as a currency; null for nothing
 * @param after what stands behind them, such as a unit; null for nothing
 */
public record Format(Integer decimals, Boolean percent, Boolean whole, String before, String after) {}
