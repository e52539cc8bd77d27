package sarnik.scale;

import sarnik.table.Rounded;

/**
 * A colour by lightness, chroma and hue, in which equal steps look about equal (OKLCH; Ottosson 2020, "A perceptual
 * color
 * space for image processing").
 *
 * @param lightness 0 to 1
 * @param chroma 0 for greys; about 0.3 at most within sRGB
 * @param hue degrees
 */
public record Oklch(double lightness, double chroma, double hue) {

    /**
     * @param hex an sRGB colour as #rrggbb
     * @throws IllegalArgumentException when it is none
     */
    public static Oklch of(String hex) {
        if (hex == null || !hex.matches("#[0-9a-fA-F]{6}"))
            throw new IllegalArgumentException("“" + hex + "” is not a colour such as #1f5f66");
        double r = linear(Integer.parseInt(hex.substring(1, 3), 16) / 255.0);
        double g = linear(Integer.parseInt(hex.substring(3, 5), 16) / 255.0);
        double b = linear(Integer.parseInt(hex.substring(5, 7), 16) / 255.0);
        double l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
        double m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
        double s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
        double along = 1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s;
        double across = 0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s;
        return new Oklch(
                0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
                Math.hypot(along, across),
                Math.toDegrees(Math.atan2(across, along)));
    }

    /**
     * The colour a share t of the way to another, along straight lines of lightness, chroma and the shorter turn of
     * hue.
     */
    Oklch towards(Oklch other, double t) {
        double turn = (((other.hue - hue) % 360) + 540) % 360 - 180;
        return new Oklch(
                lightness + (other.lightness - lightness) * t, chroma + (other.chroma - chroma) * t, hue + turn * t);
    }

    /** As sRGB, #rrggbb; what lies outside sRGB is cut off at its edge. */
    public String hex() {
        double a = chroma * Math.cos(Math.toRadians(hue));
        double b = chroma * Math.sin(Math.toRadians(hue));
        double l = cube(lightness + 0.3963377774 * a + 0.2158037573 * b);
        double m = cube(lightness - 0.1055613458 * a - 0.0638541728 * b);
        double s = cube(lightness - 0.0894841775 * a - 1.2914855480 * b);
        return "#%02x%02x%02x"
                .formatted(
                        channel(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
                        channel(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
                        channel(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s));
    }

    private static double cube(double v) {
        return v * v * v;
    }

    /** The inverse of the transfer function of sRGB (IEC 61966-2-1). */
    private static double linear(double v) {
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }

    /** The transfer function of sRGB (IEC 61966-2-1). */
    private static int channel(double linear) {
        double v = Math.max(0, Math.min(1, linear));
        return (int) Rounded.up(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055));
    }
}
