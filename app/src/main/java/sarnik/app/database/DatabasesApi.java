package sarnik.app.database;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Databases elsewhere, for those who bring tables in. */
@RestController
class DatabasesApi {

    private final Databases databases;
    private final DatabaseRows rows;

    DatabasesApi(Databases databases, DatabaseRows rows) {
        this.databases = databases;
        this.rows = rows;
    }

    /**
     * A database whose tables can be brought in.
     *
     * @param mostRows so many rows are taken at most
     */
    public record NamedDatabase(long id, String name, long mostRows) {}

    /** The databases whose tables can be brought in. */
    @GetMapping("/api/databases")
    List<NamedDatabase> all() {
        return databases.all().stream()
                .map(d -> new NamedDatabase(d.getId(), d.getName(), d.getMostRows()))
                .toList();
    }

    /** The tables and views of a database, with how many rows they have about. */
    @GetMapping("/api/databases/{id}/tables")
    List<Databases.TableElsewhere> tables(@PathVariable long id) {
        return databases.tables(databases.needed(id));
    }

    /**
     * Rows of a database.
     *
     * @param of a table, a view or a query
     */
    public record AskedRowsElsewhere(String of) {}

    /** How many rows there are. */
    public record CountElsewhere(long rows) {}

    /** Counts the rows of a table, a view or a query, before they are brought in. */
    @PostMapping("/api/databases/{id}/count")
    CountElsewhere count(@PathVariable long id, @RequestBody AskedRowsElsewhere asked) {
        return new CountElsewhere(rows.count(id, asked.of()));
    }
}
