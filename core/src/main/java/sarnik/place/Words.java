package sarnik.place;

/**
 * The words of one row that tell where it is; null where the table has no such column, empty where the cell is.
 */
public record Words(String town, String province, String country) {

    /** The words in one line, for lists: "Vitoria, Álava". */
    public String line() {
        StringBuilder line = new StringBuilder();
        for (String word : new String[] {town, province, country}) {
            if (word == null || word.isEmpty()) continue;
            if (line.length() > 0) line.append(", ");
            line.append(word);
        }
        return line.toString();
    }
}
