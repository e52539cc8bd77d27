package sarnik.demo;

import java.time.LocalDate;

/**
 * A refill kiosk. It does not exist; its town does.
 *
 * @param code such as K0042
 * @param town the town's name as this list writes it
 * @param province the province's name as this list writes it
 * @param lon degrees east, NaN where the list has no coordinates
 * @param lat degrees north, NaN where the list has no coordinates
 * @param access wheelchair access: yes, no or unknown
 * @param phone digits with a leading zero
 * @param pull how much it sells beside others, 0 for a kiosk without sales
 */
record Kiosk(
        String code,
        String name,
        String town,
        String province,
        String country,
        double lon,
        double lat,
        String model,
        LocalDate opened,
        String status,
        String access,
        String phone,
        double pull) {}
