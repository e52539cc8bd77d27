package sarnik.app.dataset;

import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.SignedIn;

/** Finds the columns of datasets to which rows of others can be tied. */
@Service
class KeyColumns {

    private final DatasetService datasets;
    private final Versions versions;
    private final TransactionTemplate transaction;

    KeyColumns(DatasetService datasets, Versions versions, TransactionTemplate transaction) {
        this.datasets = datasets;
        this.versions = versions;
        this.transaction = transaction;
    }

    /** A column whose values tell rows apart, so that rows of others can be tied to it. */
    record KeyColumn(Description dataset, String column) {}

    /** The columns of placed datasets that others can be tied to, known without their rows. */
    List<KeyColumn> keys(SignedIn person) {
        return datasets.descriptions(person).stream()
                .filter(Description::isPlaced)
                .flatMap(d -> d.served().columns().stream()
                        .filter(StoredColumn::isKey)
                        .map(c -> new KeyColumn(d, c.name())))
                .toList();
    }

    /** Which of some values occur in a column of the version that a dataset serves, found without loading its rows. */
    Set<String> occurring(KeyColumn key, Set<String> values) {
        Description.Served served = key.dataset().served();
        int column = served.columns().stream().map(StoredColumn::name).toList().indexOf(key.column());
        return transaction.execute(
                t -> versions.occurring(served.version(), served.columns().size(), column, values));
    }
}
