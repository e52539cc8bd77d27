package sarnik.app.dataset;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import sarnik.table.Table;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The versions of datasets: their descriptions and their rows, which are written and dropped together. Called within a transaction. */
@Component
class Versions {

    private static final TypeReference<List<StoredColumn>> COLUMNS = new TypeReference<>() {};
    private static final int KEPT = 12;

    private final DatasetVersionRepository stored;
    private final RowStore rows;
    private final JsonMapper mapper;

    Versions(DatasetVersionRepository stored, RowStore rows, JsonMapper mapper) {
        this.stored = stored;
        this.rows = rows;
        this.mapper = mapper;
    }

    /** All versions of a dataset, newest first. */
    List<DatasetVersion> of(long dataset) {
        return stored.findByDatasetIdOrderByNumberDesc(dataset);
    }

    Optional<DatasetVersion> find(long dataset, int number) {
        return stored.findByDatasetIdAndNumber(dataset, number);
    }

    /** A version that has to be there. */
    DatasetVersion find(long id) {
        return stored.findById(id).orElseThrow();
    }

    List<StoredColumn> columns(DatasetVersion version) {
        return mapper.readValue(version.getColumns(), COLUMNS);
    }

    /** The rows of a version. */
    Table rows(long id) {
        DatasetVersion version = find(id);
        return rows.read(id, columns(version), version.getRowCount());
    }

    /** Writes a table as the next version of a dataset. */
    DatasetVersion write(long dataset, Table table, long troubles, String fileName, long person) {
        List<StoredColumn> columns = table.names().stream().map(n -> new StoredColumn(n, table.column(n).type())).toList();
        DatasetVersion version = stored.saveAndFlush(new DatasetVersion(dataset, stored.highestNumber(dataset) + 1, table.rows(), mapper.writeValueAsString(columns),
                troubles, fileName, person, Clock.systemUTC().instant()));
        rows.write(version.getId(), columns, table);
        return version;
    }

    /** The newest versions are kept to go back to; a feed that changes every minute would fill the disk with all of them. */
    void forgetOld(long dataset, long served) {
        List<DatasetVersion> all = of(dataset);
        all.subList(Math.min(KEPT, all.size()), all.size()).stream().filter(old -> old.getId() != served).forEach(this::remove);
    }

    void removeAll(long dataset) {
        of(dataset).forEach(this::remove);
        stored.flush();
    }

    private void remove(DatasetVersion version) {
        rows.drop(version.getId());
        stored.delete(version);
    }
}
