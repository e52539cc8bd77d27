package sarnik.place;

import sarnik.geo.GreatCircle;
import sarnik.language.Language;

/**
 * A place of the gazetteer.
 *
 * @param id its lasting name: {@code g} and the GeoNames number, {@code i} and the municipality code of Spain's
 *     geographic institute, {@code r} and the code of a country, region or province, or
 *     {@code a}, the name of a boundary set and the code of an area, or {@code t} and what tells a thing apart that
 *     says where it is
 * @param level how wide it is
 * @param name its name in its own country
 * @param country ISO 3166-1 alpha-2 code
 * @param region code of the first-level region that holds it, as in GeoNames ({@code ES.55}); empty for a country
 * @param province code of the second-level area that holds it ({@code ES.55.SO}); empty where there is none
 * @param seat whether it is the seat of an administration
 * @param lon degrees east, WGS 84
 * @param lat degrees north, WGS 84
 * @param population people, 0 where not known
 */
public record Place(
        String id,
        PlaceLevel level,
        String name,
        String country,
        String region,
        String province,
        boolean seat,
        double lon,
        double lat,
        long population) {

    /** What it is called in the language that is spoken, as far as that is known; its own name in English. */
    public String said() {
        return Language.named(id, name);
    }

    /** The code of the area of a boundary set that this place stands for; empty where it is another kind of place. */
    public String areaCode() {
        return level == PlaceLevel.AREA ? id.substring(id.indexOf('/') + 1) : "";
    }

    /** Great-circle distance, metres. */
    public double metresTo(Place other) {
        return GreatCircle.metres(lon, lat, other.lon, other.lat);
    }
}
