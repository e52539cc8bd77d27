package sarnik.live;

/**
 * What a device said at one moment.
 *
 * @param device the device's code
 * @param millis the moment of measuring, milliseconds since 1970 (UTC)
 * @param lon degrees; NaN where it does not say where it is
 * @param lat degrees; NaN where it does not say where it is
 * @param values by column: {@link Double}, {@link String}, {@link Boolean} or null for missing
 */
public record Reading(String device, long millis, double lon, double lat, Object[] values) {

    public boolean hasPosition() {
        return !Double.isNaN(lon) && !Double.isNaN(lat);
    }

    /** A number, or NaN where there is none in that column. */
    public double number(int field) {
        return values[field] instanceof Double number ? number : Double.NaN;
    }

    /** The same reading without its position. */
    public Reading withoutPosition() {
        return new Reading(device, millis, Double.NaN, Double.NaN, values);
    }

    /** The same reading at another moment. */
    public Reading at(long other) {
        return new Reading(device, other, lon, lat, values);
    }
}
