package sarnik.app.dataset;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sarnik.app.web.RefusedException;
import sarnik.place.Placing;
import sarnik.sql.Face;
import sarnik.sql.FaceMaker;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.table.TableParts;
import sarnik.table.TableReader;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * The versions of datasets: their descriptions and their rows, which are written and dropped together. Called within a
 * transaction.
 */
@Component
class Versions {

    private static final TypeReference<List<StoredColumn>> COLUMNS = new TypeReference<>() {};
    private static final int MOST_READ = 4000;
    private static final int MOST_FACES = 200;

    private final DatasetVersionRepository stored;
    private final ServedVersionRepository served;
    private final RowStore rows;
    private final RowsBeside beside;
    private final HeldRows held;
    private final JsonMapper mapper;
    private final Keeping keeping;
    private final Cache<String, List<StoredColumn>> read =
            Caffeine.newBuilder().maximumSize(MOST_READ).build();
    private final Cache<String, Face> faces =
            Caffeine.newBuilder().maximumSize(MOST_FACES).build();

    Versions(
            DatasetVersionRepository stored,
            ServedVersionRepository served,
            RowStore rows,
            RowsBeside beside,
            HeldRows held,
            JsonMapper mapper,
            Keeping keeping) {
        this.keeping = keeping;
        this.stored = stored;
        this.served = served;
        this.rows = rows;
        this.beside = beside;
        this.held = held;
        this.mapper = mapper;
    }

    /** All versions of a dataset, newest first. */
    List<DatasetVersion> of(long dataset) {
        return stored.findByDatasetIdOrderByNumberDesc(dataset);
    }

    Optional<DatasetVersion> find(long dataset, int number) {
        return stored.findByDatasetIdAndNumber(dataset, number);
    }

    Optional<DatasetVersion> findById(long id) {
        return stored.findById(id);
    }

    /** A version as what is said of its dataset names it. */
    Description.Served served(DatasetVersion version) {
        List<StoredColumn> columns = columns(version);
        long bytes = version.getBytes() == null ? version.getRowCount() * columns.size() * 24 : version.getBytes();
        return new Description.Served(
                version.getId(),
                version.getNumber(),
                version.getFace() == null
                        ? version.getRowCount()
                        : face(version).rows(),
                columns,
                bytes,
                version.getTroubles(),
                version.getFileName());
    }

    /** A version that has to be there. */
    DatasetVersion find(long id) {
        return stored.findById(id).orElseThrow();
    }

    List<StoredColumn> columns(DatasetVersion version) {
        return read.get(version.getColumns(), json -> mapper.readValue(json, COLUMNS));
    }

    /** The rows of a version. What an older program did not write down of them is written down now. */
    Table rows(long id) {
        DatasetVersion version = find(id);
        List<StoredColumn> columns = columns(version);
        Table table = rows.read(id, columns, version.getRowCount());
        if (version.getBytes() == null || columns.stream().anyMatch(c -> c.key() == null))
            version.found(mapper.writeValueAsString(described(table)), table.bytes());
        return table;
    }

    /** What is known of rows that stay elsewhere, whose table the rows of a version are. */
    Face face(DatasetVersion version) {
        return faces.get(version.getFace(), json -> mapper.readValue(json, Face.class));
    }

    /** See {@link RowStore#occurring}. */
    Set<String> occurring(long version, int columnCount, int column, Set<String> values) {
        return rows.occurring(version, columnCount, column, values);
    }

    private static List<StoredColumn> described(Table table) {
        return table.names().stream()
                .map(n -> StoredColumn.of(n, table.column(n)))
                .toList();
    }

    /** Of columns of which some values only are known, it is not told whether any occurs twice. */
    private static List<StoredColumn> ofSome(List<StoredColumn> columns) {
        return columns.stream().map(StoredColumn::ofFace).toList();
    }

    /**
     * Where the rows of a version come from.
     *
     * @param troubles how many cells and rows could not be taken as they stood
     */
    record From(long troubles, String fileName, long person) {}

    /**
     * Writes rows as the next version of a dataset.
     *
     * @param progress told how far it has come where they are read for it
     */
    DatasetVersion write(long dataset, TableParts all, From from, TableReader.Progress progress) {
        List<StoredColumn> columns = described(all.sample());
        return write(dataset, all, all.areHeld() ? columns : ofSome(columns), from, progress);
    }

    /** Writes a table that is held as the next version of a dataset. */
    DatasetVersion write(long dataset, Table table, From from) {
        return write(dataset, TableParts.of(table), from, (done, rows) -> {});
    }

    /**
     * Writes, as the next version of a dataset, the rows of another version and below them those that do not stand there;
     * none of them is held.
     *
     * @throws IllegalArgumentException when a column has another type there
     */
    DatasetVersion writeBelow(
            long dataset, DatasetVersion before, TableParts newer, From from, TableReader.Progress progress) {
        checkOneTable(before);
        List<StoredColumn> columns = ofSome(columns(before));
        Map<String, Column> none = new LinkedHashMap<>();
        for (StoredColumn column : columns) none.put(column.name(), Column.of(column.type(), List.of()));
        new Table(none).followedBy(newer.sample());
        long bytes = served(before).bytes();
        long most = bytes + newer.bytes();
        DatasetVersion version = begin(dataset, before.getRowCount(), most, columns, from);
        long all = beside.writeBelow(
                version.getId(), before.getId(), columns, held.holds(most, columns.size()), newer, progress);
        double share = (all - before.getRowCount()) / (double) newer.rows();
        version.holds(all, bytes + Math.round(newer.bytes() * share));
        return version;
    }

    /** Compares newer rows with those of a version; neither has to be held. */
    RowsBeside.Compared compare(DatasetVersion before, TableParts newer, TableReader.Progress progress) {
        checkOneTable(before);
        return beside.compare(before.getId(), columns(before), newer, progress);
    }

    private void checkOneTable(DatasetVersion before) {
        if (columns(before).size() > RowStore.WIDEST)
            throw new RefusedException(
                    ("The rows that are served have more than %d columns; so many newer ones cannot be put beside them. "
                                    + "Bring the file in as a dataset of its own, or start Sarnik with more memory.")
                            .formatted(RowStore.WIDEST));
    }

    /**
     * @throws RefusedException when a version that is asked where it is kept could not be placed there: where its rows
     *     are is said by too many different values
     */
    void checkPlaceable(DatasetVersion version, Placing placing) {
        List<StoredColumn> columns = columns(version);
        if (held.holds(served(version).bytes(), columns.size())) return;
        List<String> names = columns.stream().map(StoredColumn::name).toList();
        for (List<String> end : StayingKeeper.placed(placing)) {
            List<Integer> numbers = end.stream().map(names::indexOf).toList();
            if (!numbers.contains(-1)
                    && rows.distinct(version.getId(), numbers, FaceMaker.MOST_PLACED) > FaceMaker.MOST_PLACED)
                throw new RefusedException(
                        ("There are too many rows to be held, and %s has more than %,d different values in all, so they "
                                        + "cannot be placed where they are kept. Place them by something coarser, or start Sarnik with more memory.")
                                .formatted(
                                        end.stream().map(n -> "“" + n + "”").collect(Collectors.joining(", ")),
                                        FaceMaker.MOST_PLACED));
        }
    }

    /** Writes what is known of rows that stay elsewhere as the next version of a dataset. */
    DatasetVersion write(long dataset, FaceMaker.Made face, String from, long person) {
        DatasetVersion version = write(
                dataset,
                TableParts.of(face.table()),
                ofSome(described(face.table())),
                new From(0, from, person),
                (done, all) -> {});
        version.faces(mapper.writeValueAsString(face.face()));
        return version;
    }

    private DatasetVersion write(
            long dataset, TableParts all, List<StoredColumn> columns, From from, TableReader.Progress progress) {
        DatasetVersion version = begin(dataset, all.rows(), all.bytes(), columns, from);
        rows.write(version.getId(), columns, all, progress);
        return version;
    }

    private DatasetVersion begin(long dataset, long rowCount, long bytes, List<StoredColumn> columns, From from) {
        return stored.saveAndFlush(new DatasetVersion(
                dataset,
                stored.highestNumber(dataset) + 1,
                rowCount,
                mapper.writeValueAsString(columns),
                from.troubles(),
                from.fileName(),
                from.person(),
                Clock.systemUTC().instant(),
                bytes));
    }

    /** Serves the first version of a new dataset. */
    void serveFirst(long dataset, long version) {
        served.saveAndFlush(new ServedVersion(dataset, version));
    }

    /** Which version a dataset serves, held until the transaction ends. */
    ServedVersion held(long dataset) {
        return served.findWithLockByDatasetId(dataset).orElseThrow(() -> RefusedException.gone("dataset"));
    }

    /**
     * @throws RefusedException with 409 when another version is served than the one that newer rows were compared with
     */
    void checkStill(ServedVersion now, long expected) {
        if (now.getVersionId() == expected) return;
        throw new RefusedException(
                HttpStatus.CONFLICT,
                ("Newer rows came in meanwhile: version %d is served now. Nothing was changed; look at what "
                                + "differs from it, then serve yours.")
                        .formatted(find(now.getVersionId()).getNumber()));
    }

    /**
     * The newest versions are kept to go back to, and those that editions show; a feed that changes every minute
     * would fill the disk with all of them.
     */
    void forgetOld(long dataset, long served) {
        List<DatasetVersion> all = of(dataset);
        Set<Long> needed = stored.neededByEditions(dataset);
        all.subList(Math.min(keeping.versions(), all.size()), all.size()).stream()
                .filter(old -> old.getId() != served && !needed.contains(old.getId()))
                .forEach(this::remove);
    }

    void removeAll(long dataset) {
        served.deleteById(dataset);
        served.flush();
        of(dataset).forEach(this::remove);
        stored.flush();
    }

    private void remove(DatasetVersion version) {
        rows.drop(version.getId());
        stored.delete(version);
    }
}
