package sarnik.app.dataset;

import java.util.List;
import java.util.regex.Pattern;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Thing;
import sarnik.data.About;
import sarnik.data.Calculations;
import sarnik.data.Tie;
import sarnik.place.Placing;

/**
 * What is said about a dataset, and which version it serves. All of it is read without rows.
 *
 * @param revision goes up by one with every change of what is said
 * @param placing null where the rows have no place
 * @param feed null where newer rows come from nowhere
 * @param live of which feed it shows what; null where its rows were brought in
 * @param stays where its rows are that stay in a database elsewhere; null where they are held here
 * @param decided goes up by one with every decision about its placing
 * @param owner who has brought it in
 * @param viewerRule which rows somebody sees who may not change it; null for all
 */
public record Description(
        long id,
        long revision,
        String name,
        Placing placing,
        About about,
        List<Tie> ties,
        Calculations calculations,
        Feed feed,
        Live live,
        Stays stays,
        Intake intake,
        long decided,
        long owner,
        String viewerRule,
        Served served) {

    private static final Pattern OF_TODAY =
            Pattern.compile("(?i)\\b(current_date|current_timestamp|localtimestamp|now|age)\\b");

    /**
     * The version that a dataset serves.
     *
     * @param bytes what it takes in memory, guessed from its rows and columns where it has not been loaded yet
     */
    public record Served(
            long version,
            int number,
            long rows,
            List<StoredColumn> columns,
            long bytes,
            long troubles,
            String fileName) {

        /** The same version, as it stands now of one whose rows come by themselves. */
        Served of(long now) {
            return new Served(version, number, now, columns, now * columns.size() * 8, troubles, fileName);
        }
    }

    /** Whether its rows come by themselves. */
    public boolean isLive() {
        return live != null;
    }

    /** Whether its rows stay in a database elsewhere. */
    public boolean isStaying() {
        return stays != null;
    }

    /** For how many seconds an answer holds of rows that stay elsewhere. */
    public int keptSeconds() {
        return stays == null ? 0 : stays.keep();
    }

    /** Names of the columns that people see: those that were brought in, then those that are calculated. */
    public List<String> columnNames() {
        List<String> names = new java.util.ArrayList<>(
                served.columns().stream().map(StoredColumn::name).toList());
        calculations.formulas().stream()
                .filter(f -> !f.measure() && !names.contains(f.name()))
                .forEach(f -> names.add(f.name()));
        return names;
    }

    /** This dataset as something that people have rights on. */
    public Rights.Owned owned() {
        return new Rights.Owned(Thing.DATASET, id, name, owner);
    }

    /** The same dataset as it was at one moment; who may see which rows holds as it is now. */
    Description as(FrozenDataset then, Served version) {
        return new Description(
                id,
                revision,
                then.name(),
                then.placing(),
                then.about(),
                then.ties(),
                then.calculations(),
                feed,
                live,
                stays,
                intake,
                then.decided(),
                owner,
                viewerRule,
                version);
    }

    public boolean isPlaced() {
        return placing != null;
    }

    /** Whether something is calculated from today's date, so that it is another tomorrow. */
    boolean dependsOnToday() {
        return viewerRule != null && OF_TODAY.matcher(viewerRule).find()
                || calculations.formulas().stream()
                        .anyMatch(f -> OF_TODAY.matcher(f.text()).find())
                || calculations.rules().stream()
                        .anyMatch(r -> OF_TODAY.matcher(r).find());
    }
}
