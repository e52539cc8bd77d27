package sarnik.app.dataset;

/**
 * Where a dataset's newer rows come from.
 *
 * @param address http or https
 * @param seconds how often it is asked by itself; null where it is asked on demand only
 * @param append whether its rows are put below those that are there; they take their place where it is false
 * @param person whose word it is
 */
record Feed(String address, Integer seconds, boolean append, long person) {}
