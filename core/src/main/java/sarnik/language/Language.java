package sarnik.language;

import java.time.LocalDate;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * A language in which readers are told things. The English sentence stands in the code and is the key under which the
 * other languages have theirs; a text before a bar tells alike ones apart ({@code "month|May"}) and is not said.
 *
 * <p>Which language is spoken belongs to the thread that answers: whoever answers a reader does it within {@link #in}.
 * Only words depend on it; figures, conditions and what is kept of them do not.
 */
public final class Language {

    /** What is spoken where nothing else is said. */
    public static final Language ENGLISH = new Language("en", sentence -> null);

    private static final List<String> MONTHS = List.of(
            "month|January",
            "month|February",
            "month|March",
            "month|April",
            "month|May",
            "month|June",
            "month|July",
            "month|August",
            "month|September",
            "month|October",
            "month|November",
            "month|December");

    private static final List<String> SHORT_MONTHS = List.of(
            "short month|Jan",
            "short month|Feb",
            "short month|Mar",
            "short month|Apr",
            "short month|May",
            "short month|Jun",
            "short month|Jul",
            "short month|Aug",
            "short month|Sept",
            "short month|Oct",
            "short month|Nov",
            "short month|Dec");

    private static final List<String> SHORT_DAYS = List.of(
            "short day|Mon",
            "short day|Tue",
            "short day|Wed",
            "short day|Thu",
            "short day|Fri",
            "short day|Sat",
            "short day|Sun");

    private static final ThreadLocal<Language> SPOKEN = new ThreadLocal<>();

    private final String tag;
    private final Function<String, String> sentences;
    private final char decimal;
    private final char grouping;
    private final int leastGrouped;
    private final boolean isForFiles;
    /** The same for files; null until it is asked for. */
    private volatile Language forFiles;

    /**
     * @param tag such as {@code es} (BCP 47); how numbers are written follows it (CLDR 41)
     * @param sentences gives the sentence of this language for the English one; null where it has none
     */
    public Language(String tag, Function<String, String> sentences) {
        this.tag = tag;
        this.sentences = sentences;
        this.decimal = tag.equals("en") ? '.' : ',';
        this.grouping = switch (tag) {
            case "en" -> ',';
            case "fr" -> '\u202f';
            default -> '.';
        };
        this.leastGrouped = tag.equals("es") ? 5 : 4;
        this.isForFiles = false;
    }

    private Language(Language of) {
        this.tag = of.tag;
        this.sentences = of.sentences;
        this.decimal = '.';
        this.grouping = ',';
        this.leastGrouped = Integer.MAX_VALUE;
        this.isForFiles = true;
    }

    /**
     * The same words with numbers as programs read them: all their digits, a point before decimals, nothing between
     * thousands.
     */
    public Language forFiles() {
        if (isForFiles) return this;
        if (forFiles == null) forFiles = new Language(this);
        return forFiles;
    }

    /** Whether it is what is written into files, of which programs read the numbers. */
    public boolean isForFiles() {
        return isForFiles;
    }

    public String tag() {
        return tag;
    }

    /** What stands before decimals. */
    public char decimal() {
        return decimal;
    }

    /** What stands between thousands. */
    public char grouping() {
        return grouping;
    }

    /** Whether thousands stand apart in a number of so many digits: in Spanish not in 1234, but in 12.345. */
    public boolean groups(int digits) {
        return digits >= leastGrouped;
    }

    /** The form of a number in this language that a sentence asks for: {@code one} or {@code other} (CLDR 41). */
    String form(double number) {
        boolean isOne = tag.equals("fr") || tag.equals("pt") ? number >= 0 && number < 2 : number == 1;
        return isOne ? "one" : "other";
    }

    /** What is spoken here and now. */
    public static Language spoken() {
        Language spoken = SPOKEN.get();
        return spoken == null ? ENGLISH : spoken;
    }

    /** Answers in a language. */
    public static <T> T in(Language language, Supplier<T> answer) {
        Language before = SPOKEN.get();
        SPOKEN.set(language);
        try {
            return answer.get();
        } finally {
            if (before == null) SPOKEN.remove();
            else SPOKEN.set(before);
        }
    }

    /** Goes on in another language within what is answered {@link #in} one. */
    public static void speak(Language language) {
        if (SPOKEN.get() == null)
            throw new IllegalStateException("What is answered here is not answered in a language");
        SPOKEN.set(language);
    }

    /**
     * A sentence in the language that is spoken.
     *
     * @param sentence in English, with {@code {0}} for what is put in; see {@link Sentence}
     * @param with texts as they are, numbers as the language writes them
     */
    public static String phrase(String sentence, Object... with) {
        Language spoken = spoken();
        String own = spoken.sentences.apply(sentence);
        return Sentence.filled(own == null ? plain(sentence) : own, spoken, with);
    }

    /**
     * What something that has a name of its own is called in the language that is spoken.
     *
     * @param key what the names of each language stand under
     * @param name its own, by which it goes where this language has none for it
     */
    public static String named(String key, String name) {
        String own = spoken().sentences.apply(key);
        return own == null ? name : own;
    }

    /** The English sentence without what tells it from one that reads alike. */
    static String plain(String sentence) {
        int bar = sentence.indexOf('|');
        return bar < 0 ? sentence : sentence.substring(bar + 1);
    }

    /** The name of a month, 1 to 12. */
    public static String month(int month) {
        return phrase(MONTHS.get(month - 1));
    }

    public static String shortMonth(int month) {
        return phrase(SHORT_MONTHS.get(month - 1));
    }

    /** The short name of a weekday, 1 for Monday to 7. */
    public static String shortDay(int day) {
        return phrase(SHORT_DAYS.get(day - 1));
    }

    /** A day with the name of its month: 3 May 2026. */
    public static String day(LocalDate day) {
        return phrase(
                "day, month, year|{0} {1} {2}",
                String.valueOf(day.getDayOfMonth()), month(day.getMonthValue()), String.valueOf(day.getYear()));
    }

    /** The same with the month's short name. */
    public static String shortly(LocalDate day) {
        return phrase(
                "day, short month, year|{0} {1} {2}",
                String.valueOf(day.getDayOfMonth()), shortMonth(day.getMonthValue()), String.valueOf(day.getYear()));
    }

    /** A whole number with thousands apart. */
    public String whole(long number) {
        return grouped(String.valueOf(Math.abs(number)), number < 0);
    }

    private String grouped(String digits, boolean negative) {
        StringBuilder text = new StringBuilder(negative ? "-" : "");
        boolean apart = groups(digits.length());
        for (int at = 0; at < digits.length(); at++) {
            if (apart && at > 0 && (digits.length() - at) % 3 == 0) text.append(grouping);
            text.append(digits.charAt(at));
        }
        return text.toString();
    }

    /** A number as it is written with a point ({@code 1234.5}), as the language writes it. */
    public String written(String plain) {
        int point = plain.indexOf('.');
        boolean negative = plain.startsWith("-");
        String whole = plain.substring(negative ? 1 : 0, point < 0 ? plain.length() : point);
        return grouped(whole, negative) + (point < 0 ? "" : decimal + plain.substring(point + 1));
    }

    /** Texts one after the other, the last after "and": a, b and c. */
    public static String all(List<String> texts) {
        return texts.size() < 2 ? String.join("", texts) : phrase("{0} and {1}", allButLast(texts), last(texts));
    }

    /** Texts one after the other, the last after "or": a, b or c. */
    public static String any(List<String> texts) {
        return texts.size() < 2 ? String.join("", texts) : phrase("{0} or {1}", allButLast(texts), last(texts));
    }

    private static String allButLast(List<String> texts) {
        return String.join(", ", texts.subList(0, texts.size() - 1));
    }

    private static String last(List<String> texts) {
        return texts.get(texts.size() - 1);
    }

    @Override
    public String toString() {
        return tag;
    }
}
