package sarnik.app.ground;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.app.web.RefusedException;

/**
 * The address of a tile with placeholders: {@code {z}}, {@code {x}} and {@code {y}} for its zoom, column and row;
 * {@code {z:a|b}} for names of the zooms from 0; or {@code {bbox}} for its extent in metres of Web Mercator.
 */
final class TileAddress {

    /** Half the width of the world in Web Mercator, metres. */
    private static final double HALF = 20_037_508.342789244;

    private static final Pattern NAMES = Pattern.compile("\\{z:([^}]*)}");

    private TileAddress() {}

    /** Whether it says where the numbers of a tile stand. */
    static boolean isOne(String address) {
        boolean zoom = address.contains("{z}") || NAMES.matcher(address).find();
        return address.contains("{bbox}") || zoom && address.contains("{x}") && address.contains("{y}");
    }

    /**
     * The address of one tile.
     *
     * @throws RefusedException when there is none of this zoom
     */
    static String of(String address, int z, int x, int y) {
        Matcher names = NAMES.matcher(address);
        String at = address;
        if (names.find()) {
            String[] all = names.group(1).split("\\|", -1);
            if (z >= all.length || all[z].isEmpty()) throw RefusedException.gone("tile");
            at = address.substring(0, names.start()) + all[z] + address.substring(names.end());
        }
        double size = 2 * HALF / (1L << z);
        String box = String.format(
                Locale.ROOT,
                "%.6f,%.6f,%.6f,%.6f",
                x * size - HALF,
                HALF - (y + 1) * size,
                (x + 1) * size - HALF,
                HALF - y * size);
        return at.replace("{z}", String.valueOf(z))
                .replace("{x}", String.valueOf(x))
                .replace("{y}", String.valueOf(y))
                .replace("{bbox}", box);
    }
}
