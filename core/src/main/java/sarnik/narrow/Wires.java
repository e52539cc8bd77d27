package sarnik.narrow;

import java.util.List;
import java.util.Map;
import sarnik.visual.Visual;

/** What of a dashboard narrows, and is narrowed. */
public interface Wires {

    Map<String, Visual> visuals();

    Map<String, Filter> filters();

    Map<String, Link> links();

    Map<String, Parameter> parameters();

    /** Ids of the filters of a page in their order. */
    List<String> filtersOf(String page);

    /** Ids of the pages in their order. */
    List<String> pageIds();

    /** Id of the first page. */
    String firstPage();
}
