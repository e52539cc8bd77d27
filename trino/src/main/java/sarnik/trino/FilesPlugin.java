package sarnik.trino;

import static io.trino.spi.type.BigintType.BIGINT;
import static io.trino.spi.type.BooleanType.BOOLEAN;
import static io.trino.spi.type.DateType.DATE;
import static io.trino.spi.type.DoubleType.DOUBLE;
import static io.trino.spi.type.TimestampType.TIMESTAMP_SECONDS;
import static io.trino.spi.type.VarcharType.VARCHAR;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonProperty;
import io.airlift.slice.Slice;
import io.airlift.slice.Slices;
import io.trino.spi.Plugin;
import io.trino.spi.connector.ColumnHandle;
import io.trino.spi.connector.ColumnMetadata;
import io.trino.spi.connector.Connector;
import io.trino.spi.connector.ConnectorContext;
import io.trino.spi.connector.ConnectorFactory;
import io.trino.spi.connector.ConnectorMetadata;
import io.trino.spi.connector.ConnectorRecordSetProvider;
import io.trino.spi.connector.ConnectorSession;
import io.trino.spi.connector.ConnectorSplit;
import io.trino.spi.connector.ConnectorSplitManager;
import io.trino.spi.connector.ConnectorSplitSource;
import io.trino.spi.connector.ConnectorTableHandle;
import io.trino.spi.connector.ConnectorTableMetadata;
import io.trino.spi.connector.ConnectorTransactionHandle;
import io.trino.spi.connector.Constraint;
import io.trino.spi.connector.DynamicFilter;
import io.trino.spi.connector.FixedSplitSource;
import io.trino.spi.connector.RecordCursor;
import io.trino.spi.connector.RecordSet;
import io.trino.spi.connector.SchemaTableName;
import io.trino.spi.transaction.IsolationLevel;
import io.trino.spi.type.Type;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Files as tables, to be read into others. The first line of a file names its columns and their types, {@code
 * town:text, at:time}; each line behind is a row, its cells between tabs, an empty one missing.
 */
final class FilesPlugin implements Plugin {

    private static final String SCHEMA = "default";

    @Override
    public Iterable<ConnectorFactory> getConnectorFactories() {
        return List.of(new ConnectorFactory() {
            @Override
            public String getName() {
                return "files";
            }

            @Override
            public Connector create(String catalog, Map<String, String> config, ConnectorContext context) {
                return new Lines(Path.of(config.get("directory")));
            }
        });
    }

    /** Marks a transaction, of which there is nothing to say. */
    enum Reading implements ConnectorTransactionHandle {
        INSTANCE
    }

    /** A table, which is a file. */
    public record FileTable(@JsonProperty("name") String name) implements ConnectorTableHandle {
        @JsonCreator
        public FileTable {}
    }

    /** A column, by its place in a line. */
    public record FileColumn(
            @JsonProperty("name") String name,
            @JsonProperty("type") String type,
            @JsonProperty("at") int at) implements ColumnHandle {
        @JsonCreator
        public FileColumn {}

        Type held() {
            return switch (type) {
                case "whole" -> BIGINT;
                case "decimal" -> DOUBLE;
                case "date" -> DATE;
                case "time" -> TIMESTAMP_SECONDS;
                case "yes" -> BOOLEAN;
                default -> VARCHAR;
            };
        }
    }

    /** A whole file. */
    public record FileSplit(@JsonProperty("name") String name) implements ConnectorSplit {
        @JsonCreator
        public FileSplit {}

        @Override
        @JsonIgnore
        public Object getInfo() {
            return name;
        }

        @Override
        @JsonIgnore
        public long getRetainedSizeInBytes() {
            return 100;
        }
    }

    /** The files of a directory. */
    private static final class Lines implements Connector {

        private final Path directory;

        Lines(Path directory) {
            this.directory = directory;
        }

        private Path file(String table) {
            return directory.resolve(table + ".tsv");
        }

        private List<FileColumn> columns(String table) {
            try (BufferedReader lines = Files.newBufferedReader(file(table))) {
                List<FileColumn> columns = new ArrayList<>();
                for (String named : lines.readLine().split(",")) {
                    String[] parts = named.strip().split(":");
                    columns.add(new FileColumn(parts[0], parts[1], columns.size()));
                }
                return columns;
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        }

        @Override
        public ConnectorTransactionHandle beginTransaction(IsolationLevel level, boolean readOnly, boolean auto) {
            return Reading.INSTANCE;
        }

        @Override
        public ConnectorMetadata getMetadata(ConnectorSession session, ConnectorTransactionHandle transaction) {
            return new ConnectorMetadata() {
                @Override
                public List<String> listSchemaNames(ConnectorSession s) {
                    return List.of(SCHEMA);
                }

                @Override
                public ConnectorTableHandle getTableHandle(ConnectorSession s, SchemaTableName name) {
                    return Files.exists(file(name.getTableName())) ? new FileTable(name.getTableName()) : null;
                }

                @Override
                public ConnectorTableMetadata getTableMetadata(ConnectorSession s, ConnectorTableHandle table) {
                    String name = ((FileTable) table).name();
                    return new ConnectorTableMetadata(
                            new SchemaTableName(SCHEMA, name),
                            columns(name).stream()
                                    .map(c -> new ColumnMetadata(c.name(), c.held()))
                                    .toList());
                }

                @Override
                public Map<String, ColumnHandle> getColumnHandles(ConnectorSession s, ConnectorTableHandle table) {
                    Map<String, ColumnHandle> handles = new LinkedHashMap<>();
                    columns(((FileTable) table).name()).forEach(c -> handles.put(c.name(), c));
                    return handles;
                }

                @Override
                public ColumnMetadata getColumnMetadata(
                        ConnectorSession s, ConnectorTableHandle table, ColumnHandle column) {
                    FileColumn of = (FileColumn) column;
                    return new ColumnMetadata(of.name(), of.held());
                }
            };
        }

        @Override
        public ConnectorSplitManager getSplitManager() {
            return new ConnectorSplitManager() {
                @Override
                public ConnectorSplitSource getSplits(
                        ConnectorTransactionHandle transaction,
                        ConnectorSession session,
                        ConnectorTableHandle table,
                        DynamicFilter filter,
                        Constraint constraint) {
                    return new FixedSplitSource(new FileSplit(((FileTable) table).name()));
                }
            };
        }

        @Override
        public ConnectorRecordSetProvider getRecordSetProvider() {
            return new ConnectorRecordSetProvider() {
                @Override
                public RecordSet getRecordSet(
                        ConnectorTransactionHandle transaction,
                        ConnectorSession session,
                        ConnectorSplit split,
                        ConnectorTableHandle table,
                        List<? extends ColumnHandle> wanted) {
                    return rows(
                            (FileSplit) split,
                            wanted.stream().map(FileColumn.class::cast).toList());
                }
            };
        }

        private RecordSet rows(FileSplit split, List<FileColumn> columns) {
            return new RecordSet() {
                @Override
                public List<Type> getColumnTypes() {
                    return columns.stream().map(FileColumn::held).toList();
                }

                @Override
                public RecordCursor cursor() {
                    return new Cells(file(split.name()), columns);
                }
            };
        }
    }

    /** The cells of a file, line by line. */
    private static final class Cells implements RecordCursor {

        private final BufferedReader lines;
        private final List<FileColumn> columns;
        private String[] cells;
        private long read;

        Cells(Path file, List<FileColumn> columns) {
            this.columns = columns;
            try {
                this.lines = Files.newBufferedReader(file);
                lines.readLine();
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        }

        @Override
        public boolean advanceNextPosition() {
            try {
                String line = lines.readLine();
                if (line == null) return false;
                read += line.length();
                cells = line.split("\t", -1);
                return true;
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        }

        private String cell(int field) {
            return cells[columns.get(field).at()];
        }

        @Override
        public boolean isNull(int field) {
            return cell(field).isEmpty();
        }

        @Override
        public boolean getBoolean(int field) {
            return cell(field).equals("yes");
        }

        @Override
        public long getLong(int field) {
            return switch (columns.get(field).type()) {
                case "date" -> LocalDate.parse(cell(field)).toEpochDay();
                case "time" -> LocalDateTime.parse(cell(field)).toEpochSecond(ZoneOffset.UTC) * 1_000_000;
                default -> Long.parseLong(cell(field));
            };
        }

        @Override
        public double getDouble(int field) {
            return Double.parseDouble(cell(field));
        }

        @Override
        public Slice getSlice(int field) {
            return Slices.utf8Slice(cell(field));
        }

        @Override
        public Object getObject(int field) {
            throw new UnsupportedOperationException();
        }

        @Override
        public Type getType(int field) {
            return columns.get(field).held();
        }

        @Override
        public long getCompletedBytes() {
            return read;
        }

        @Override
        public long getReadTimeNanos() {
            return 0;
        }

        @Override
        public void close() {
            try {
                lines.close();
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        }
    }
}
