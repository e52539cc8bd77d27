package sarnik.app.live;

import sarnik.app.web.RefusedException;

/**
 * A server that a feed is read from, by OGC SensorThings 1.1.
 *
 * @param address its root, such as {@code https://example.org/v1.1}
 * @param seconds how often it is asked
 */
record ThingsSource(String address, int seconds) {

    private static final int FEWEST = 5;
    private static final int MOST = 86_400;

    ThingsSource checked() {
        if (address == null || !address.matches("https?://\\S+") || address.length() > 400)
            throw new RefusedException("The root of a SensorThings server begins with http:// or https://.");
        if (seconds < FEWEST || seconds > MOST)
            throw new RefusedException("A server is asked every %d to %,d seconds.".formatted(FEWEST, MOST));
        return new ThingsSource(address.strip().replaceAll("/+$", ""), seconds);
    }
}
