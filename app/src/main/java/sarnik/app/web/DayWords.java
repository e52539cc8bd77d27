package sarnik.app.web;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import sarnik.language.Language;

/** Days as people read them. */
public final class DayWords {

    private static final DateTimeFormatter MOMENT =
            DateTimeFormatter.ofPattern("d MMMM yyyy, HH:mm:ss", Locale.ENGLISH).withZone(ZoneOffset.UTC);

    private DayWords() {}

    /** A moment in UTC, such as 5 June 2026, 07:30:00. */
    public static String moment(Instant moment) {
        return MOMENT.format(moment);
    }

    /** The day of a moment in UTC, such as 5 June 2026, in the language that is spoken. */
    public static String of(Instant moment) {
        return Language.day(LocalDate.ofInstant(moment, ZoneOffset.UTC));
    }
}
