package sarnik.table;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Makes of a file's header names that a table can have. */
final class ColumnNames {

    private static final int LONGEST = 120;

    private ColumnNames() {}

    /**
     * Names that are filled and unique, in the order of the header; what had to be changed is reported.
     *
     * @throws UnreadableTableException when there are more than {@link TableReader#MOST_COLUMNS}
     */
    static List<String> unique(List<String> header, TroubleLog troubles) {
        return unique(header, false, troubles);
    }

    /** @param tidy whether they are taken without what cannot be seen, see {@link CellText} */
    static List<String> unique(List<String> header, boolean tidy, TroubleLog troubles) {
        if (header.size() > TableReader.MOST_COLUMNS) {
            throw new UnreadableTableException(
                    "The header has %,d columns; up to %,d can be brought in. Leave out the columns"
                                    .formatted(header.size(), TableReader.MOST_COLUMNS)
                            + " that are not needed, or turn repeated columns into rows.");
        }
        List<String> names = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (int i = 0; i < header.size(); i++) {
            String written = tidy
                    ? CellText.plain(CellText.strip(header.get(i)))
                    : header.get(i).strip();
            String name = clean(written);
            if (name.chars().allMatch(Character::isISOControl)) name = "column " + (i + 1);
            String unique = name;
            for (int n = 2; !taken.add(unique); n++) unique = name + " " + n;
            if (!unique.equals(written)) {
                troubles.add(
                        1,
                        unique,
                        written,
                        written.isEmpty()
                                ? "The header has no name here; the column is called “" + unique + "”."
                                : "The name is taken or cannot be used as it stands; the column is called “" + unique
                                        + "”.");
            }
            names.add(unique);
        }
        return names;
    }

    /**
     * The name without what a table cannot have; names that start with @ are kept for the columns that placing adds.
     */
    static String clean(String written) {
        String name = written.replace("\0", "")
                .replaceAll("\\s*[\\r\\n]+\\s*", " ")
                .strip()
                .replaceFirst("^@+", "");
        return name.length() > LONGEST ? name.substring(0, LONGEST) : name;
    }
}
