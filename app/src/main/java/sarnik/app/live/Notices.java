package sarnik.app.live;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import sarnik.app.web.RefusedException;
import sarnik.live.DeviceState;

/**
 * Who is told when devices turn.
 *
 * @param states to which states they have to turn
 * @param well whether it is told as well when they have left those
 * @param mails addresses of mail
 * @param hook an address to which JSON is sent; null for none
 * @param quietFrom from which time of day nothing is told, such as 22:00; null for always
 * @param quietUntil until when
 * @param zone whose time of day that is, such as Europe/Madrid
 * @param link an address that is told along, of the page on which it is seen; null for none
 */
record Notices(
        List<DeviceState> states,
        boolean well,
        List<String> mails,
        String hook,
        String quietFrom,
        String quietUntil,
        String zone,
        String link) {

    private static final int MOST_MAILS = 20;
    private static final int LONGEST = 400;

    Notices {
        states = states == null ? List.of() : List.copyOf(states);
        mails = mails == null ? List.of() : List.copyOf(mails);
    }

    /** @throws RefusedException with a sentence where something is not said as it has to be */
    void check() {
        if (mails.size() > MOST_MAILS)
            throw new RefusedException("%d addresses of mail at most are told.".formatted(MOST_MAILS));
        for (String mail : mails)
            if (mail.length() > LONGEST || !mail.matches("[^\\s@<>,;\"]+@[^\\s@<>,;\"]+"))
                throw new RefusedException("“%s” is no address of mail.".formatted(mail));
        for (String address : new String[] {hook, link})
            if (address != null && (address.length() > LONGEST || !address.matches("https?://\\S+")))
                throw new RefusedException(
                        "“%s” is no address; it begins with http:// or https://.".formatted(address));
        if ((quietFrom == null) != (quietUntil == null))
            throw new RefusedException("Say from when until when it is quiet, or neither.");
        try {
            if (quietFrom != null) {
                LocalTime.parse(quietFrom);
                LocalTime.parse(quietUntil);
            }
            // Moments are told in it as well.
            if (zone != null || quietFrom != null) ZoneId.of(zone);
        } catch (DateTimeException | NullPointerException odd) {
            throw new RefusedException(
                    "Quiet hours are said such as 22:00 and 06:30, in the time of a zone such as Europe/Madrid.");
        }
    }

    /** Whether a turn is told. @param before the state that was left; null for none */
    boolean tell(DeviceState now, DeviceState before) {
        return states.contains(now) || well && before != null && states.contains(before);
    }

    /** When something that is to be told at a moment is told: at once, or once it is not quiet any more. */
    Instant due(Instant moment) {
        if (quietFrom == null) return moment;
        LocalTime from = LocalTime.parse(quietFrom);
        LocalTime until = LocalTime.parse(quietUntil);
        ZonedDateTime here = moment.atZone(ZoneId.of(zone));
        LocalTime now = here.toLocalTime();
        boolean isOverMidnight = from.isAfter(until);
        boolean isQuiet = isOverMidnight
                ? !now.isBefore(from) || now.isBefore(until)
                : !now.isBefore(from) && now.isBefore(until);
        if (!isQuiet) return moment;
        boolean isTomorrow = isOverMidnight && !now.isBefore(from);
        return here.toLocalDate()
                .plusDays(isTomorrow ? 1 : 0)
                .atTime(until)
                .atZone(here.getZone())
                .toInstant();
    }
}
