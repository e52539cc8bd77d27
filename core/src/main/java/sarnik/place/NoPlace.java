package sarnik.place;

import java.util.Set;

/** Words that stand where a place is not told: they name nobody's place, whatever is called so. */
final class NoPlace {

    private static final Set<String> WORDS = Set.of(
            "na",
            "n a",
            "nan",
            "nil",
            "null",
            "none",
            "no",
            "yes",
            "unknown",
            "unspecified",
            "undefined",
            "not available",
            "not applicable",
            "not known",
            "not stated",
            "missing",
            "other",
            "others",
            "various",
            "misc",
            "miscellaneous",
            "all",
            "any",
            "total",
            "subtotal",
            "grand total",
            "sum",
            "average",
            "test",
            "tbd",
            "tba",
            "blank",
            "empty",
            "online",
            "abroad",
            "elsewhere",
            "nowhere",
            "rest",
            "otro",
            "otros",
            "otra",
            "otras",
            "desconocido",
            "desconocida",
            "sin datos",
            "sin dato",
            "sin especificar",
            "no consta",
            "ninguno",
            "ninguna",
            "varios",
            "varias",
            "todos",
            "todas",
            "extranjero",
            "resto",
            "ns nc",
            "s d",
            "sd",
            "nd",
            "n d",
            "outro",
            "outros",
            "desconhecido",
            "sem dados",
            "nenhum",
            "autre",
            "autres",
            "inconnu",
            "inconnue",
            "aucun",
            "divers",
            "andere",
            "sonstige",
            "unbekannt",
            "keine",
            "altro",
            "altri",
            "sconosciuto",
            "overig",
            "onbekend");

    private NoPlace() {}

    /**
     * Whether a cell names no place: a word for nothing, marks, a number, a date, a time, or a list or object as JSON
     * writes it.
     */
    static boolean is(String cell) {
        if (isWrittenAsJson(cell)) return true;
        boolean letters = false;
        for (int i = 0; i < cell.length() && !letters; i++) letters = Character.isLetter(cell.charAt(i));
        return !letters ? !isAreaNumber(cell) : cell.length() < 20 && WORDS.contains(PlaceNames.fold(cell));
    }

    /** A name may stand in brackets, but not in brackets and quotes. */
    private static boolean isWrittenAsJson(String cell) {
        return cell.length() > 1
                && (cell.charAt(0) == '[' || cell.charAt(0) == '{')
                && "\"[{".indexOf(cell.charAt(1)) >= 0;
    }

    /** Two digits are the number of a province where a column says so. */
    private static boolean isAreaNumber(String cell) {
        return cell.strip().matches("[0-9]{2}");
    }
}
