package sarnik.format;

import java.util.Map;
import org.locationtech.jts.geom.Geometry;

/**
 * A thing on the ground with what is known of it.
 *
 * @param line where it stands in the file: its line, or its number, the first is 1
 * @param properties its values as text by name, in the order of the file; a value that is missing is empty
 * @param shape its shape in degrees, longitude first; null where it has none
 */
public record Feature(long line, Map<String, String> properties, Geometry shape) {}
