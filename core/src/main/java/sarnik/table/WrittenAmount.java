package sarnik.table;

import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A number as it is written with what stands around it: a currency before or behind it, a sign for per cent, brackets
 * or a
 * minus behind it for what is below nought.
 *
 * @param number the digits, marks and the sign before them
 * @param unit the unit beside it; empty where there is none
 * @param flag the mark behind it that leads to a note, such as "*" or "(p)"; empty where there is none
 */
record WrittenAmount(String number, String unit, String flag) {

    /** Marks that lead to notes, and the letters of statistical offices for what is provisional, estimated, revised. */
    private static final Pattern FLAG = Pattern.compile(
            "(.*?[\\d%)])(\\s?[*†‡§¹²³⁴⁵⁶⁷⁸⁹]{1,3}|\\s?\\([a-z]{1,2}\\)|\\s?\\[[0-9a-z]{1,2}\\]|\\s\\(\\d\\)|\\s[epr])");

    private static final Map<String, String> SIGNS = Map.ofEntries(
            Map.entry("€", "€"),
            Map.entry("$", "$"),
            Map.entry("£", "£"),
            Map.entry("¥", "¥"),
            Map.entry("₹", "₹"),
            Map.entry("₽", "₽"),
            Map.entry("₩", "₩"),
            Map.entry("₺", "₺"),
            Map.entry("₴", "₴"),
            Map.entry("₦", "₦"),
            Map.entry("₪", "₪"),
            Map.entry("฿", "฿"),
            Map.entry("₫", "₫"),
            Map.entry("₱", "₱"),
            Map.entry("R$", "R$"),
            Map.entry("US$", "US$"),
            Map.entry("A$", "A$"),
            Map.entry("C$", "C$"),
            Map.entry("HK$", "HK$"),
            Map.entry("NZ$", "NZ$"),
            Map.entry("S$", "S$"),
            Map.entry("MX$", "MX$"),
            Map.entry("Rs", "Rs"),
            Map.entry("Rs.", "Rs"),
            Map.entry("kr", "kr"),
            Map.entry("kr.", "kr"),
            Map.entry("zł", "zł"),
            Map.entry("Kč", "Kč"),
            Map.entry("Ft", "Ft"),
            Map.entry("lei", "lei"),
            Map.entry("Fr.", "CHF"),
            Map.entry("SFr.", "CHF"),
            Map.entry("%", "%"),
            Map.entry("‰", "‰"));

    /** Codes of ISO 4217 of currencies in use. */
    private static final Set<String> CODES = Set.of(
            "AED", "ARS", "AUD", "BDT", "BGN", "BHD", "BRL", "CAD", "CHF", "CLP", "CNY", "COP", "CZK", "DKK", "DZD",
            "EGP", "EUR", "GBP", "GHS", "HKD", "HUF", "IDR", "ILS", "INR", "ISK", "JOD", "JPY", "KES", "KRW", "KWD",
            "LKR", "MAD", "MXN", "MYR", "NGN", "NOK", "NZD", "OMR", "PEN", "PHP", "PKR", "PLN", "QAR", "RON", "RSD",
            "RUB", "SAR", "SEK", "SGD", "THB", "TND", "TRY", "TWD", "UAH", "USD", "UYU", "VND", "XAF", "XOF", "ZAR");

    private static final int LONGEST = 40;

    /** The amount in a text; null where nothing stands around a number, or no number within. */
    static WrittenAmount of(String text) {
        if (text.length() < 2 || text.length() > LONGEST) return null;
        char last = text.charAt(text.length() - 1);
        Matcher flagged = isDigit(last) || last == '%' || last == '€' ? null : FLAG.matcher(text);
        if (flagged == null || !flagged.matches()) return unflagged(text);
        String amount = flagged.group(1);
        String flag = flagged.group(2).strip();
        WrittenAmount around = unflagged(amount);
        return around == null
                ? new WrittenAmount(amount, "", flag)
                : new WrittenAmount(around.number, around.unit, flag);
    }

    private static WrittenAmount unflagged(String text) {
        int length = text.length();
        if (length < 2) return null;
        int from = 0;
        int to = length;
        boolean below = false;
        if (text.charAt(0) == '(' && text.charAt(length - 1) == ')') {
            below = true;
            from++;
            to--;
        }
        String inner = text.substring(from, to).strip().replace('−', '-');
        if (inner.isEmpty()) return null;
        boolean minus = false;
        if (inner.charAt(0) == '-' || inner.charAt(0) == '+') {
            minus = inner.charAt(0) == '-';
            inner = inner.substring(1).strip();
        }
        int first = 0;
        while (first < inner.length()
                && !isDigit(inner.charAt(first))
                && !(inner.charAt(first) == '-' || isMark(inner, first))) first++;
        int last = inner.length();
        while (last > first && !isDigit(inner.charAt(last - 1))) last--;
        if (last <= first) return null;
        String before = inner.substring(0, first).strip();
        String behind = inner.substring(last).strip();
        if (behind.startsWith("-")) {
            minus = true;
            behind = behind.substring(1).strip();
        }
        String number = inner.substring(first, last);
        if (number.startsWith("-")) {
            minus = true;
            number = number.substring(1);
        }
        if (!before.isEmpty() && !behind.isEmpty()) return null;
        String unit = before.isEmpty() && behind.isEmpty() ? "" : unit(before.isEmpty() ? behind : before);
        if (unit == null || unit.isEmpty() && !below && !minus || below && minus) return null;
        return new WrittenAmount((below || minus ? "-" : "") + number, unit, "");
    }

    private static boolean isMark(String text, int at) {
        return text.charAt(at) == '.'
                && at + 1 < text.length()
                && isDigit(text.charAt(at + 1))
                && (at == 0 || text.charAt(at - 1) == ' ');
    }

    private static String unit(String written) {
        String known = SIGNS.get(written);
        return known != null ? known : CODES.contains(written) ? written : null;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}
