package sarnik.place;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.geo.Projection;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.Table;

/**
 * Guesses in which projected system coordinates are: the one in which most rows fall beside a town, and beside the towns,
 * provinces and countries that the rows name. The zones of UTM look alike by their numbers; it is the names that tell them
 * apart.
 */
final class ProjectionGuess {

    /** Systems in use in Europe and everywhere, the commonest first (codes of the EPSG register). */
    static final List<Integer> CANDIDATES = List.of(25830, 25829, 25831, 25828, 32630, 32629, 32631, 3857, 3035, 3763, 2154, 27700, 25832, 25833, 23030, 23029, 23031, 32632, 32633);

    private static final double BESIDE = 12_000;
    private static final double NEEDED = 0.5;
    private static final int LOOKED_AT = 150;

    private final Gazetteer gazetteer;

    ProjectionGuess(Gazetteer gazetteer) {
        this.gazetteer = gazetteer;
    }

    /**
     * @param easting column of eastings, metres
     * @param northing column of northings, metres
     * @return the code of the likeliest system; empty where none puts half of the rows beside towns
     */
    Optional<Integer> guess(Table table, String easting, String northing) {
        int best = -1;
        double bestScore = NEEDED;
        for (int epsg : CANDIDATES) {
            double score = Projection.ofEpsg(epsg).map(p -> score(table, table.column(easting), table.column(northing), p)).orElse(0.0);
            // A later system has to be clearly better: earlier ones are commoner.
            if (score > bestScore + (best < 0 ? 0 : 0.02)) {
                bestScore = score;
                best = epsg;
            }
        }
        return best < 0 ? Optional.empty() : Optional.of(best);
    }

    /** 1 for a row beside a town, and 1 more where the row names it, its province or its country; the mean over some rows. */
    private double score(Table table, Column x, Column y, Projection projection) {
        int step = Math.max(1, table.rows() / LOOKED_AT);
        int seen = 0;
        double score = 0;
        for (int row = 0; row < table.rows(); row += step) {
            if (x.isMissing(row) || y.isMissing(row)) continue;
            seen++;
            double[] at = projection.toDegrees(number(x, row), number(y, row));
            if (at == null) continue;
            Place near = gazetteer.nearestTown(at[0], at[1], BESIDE).orElse(null);
            if (near == null) continue;
            score += 1;
            if (named(table, row, near)) score += 1;
        }
        return seen == 0 ? 0 : score / seen;
    }

    private static double number(Column column, int row) {
        try {
            return Double.parseDouble(column.text(row).replace(',', '.'));
        } catch (NumberFormatException unread) {
            return Double.NaN;
        }
    }

    private boolean named(Table table, int row, Place near) {
        Set<String> names = new HashSet<>();
        names.add(PlaceNames.fold(near.name()));
        gazetteer.provinceOf(near).ifPresent(p -> names.add(PlaceNames.fold(p.name())));
        for (String column : table.names()) {
            if (!(table.column(column) instanceof CodedColumn) || table.column(column).isMissing(row)) continue;
            String text = table.column(column).text(row);
            if (names.contains(PlaceNames.fold(text)) || gazetteer.country(text).filter(near.country()::equals).isPresent()) return true;
        }
        return false;
    }
}
