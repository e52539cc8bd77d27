package sarnik.visual;

import sarnik.data.LoadedDataset;
import sarnik.query.RowQuery;

/** A question to a dataset for rows as they are. */
public record AskedRows(LoadedDataset dataset, RowQuery query) {}
