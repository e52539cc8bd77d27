package sarnik.narrow;

import java.util.List;
import java.util.Map;
import sarnik.data.SheetFormula;
import sarnik.visual.Visual;

/** What of a dashboard narrows, and is narrowed. */
public interface Wires {

    Map<String, Visual> visuals();

    Map<String, Filter> filters();

    Map<String, Link> links();

    Map<String, Parameter> parameters();

    /** Measures of its own, by id. */
    Map<String, SheetFormula> formulas();

    /** Whether a visual asks for a measure of its own. */
    boolean asksFor(String visual, SheetFormula formula);

    /** Visuals of which one at a time is shown in one place, by the id of their group. */
    Map<String, List<String>> swaps();

    /** What addresses call parts of it, by their ids. */
    Map<String, String> names();

    /** Ids of the filters that narrow a page, in their order. */
    List<String> filtersOf(String page);

    /** Ids of the pages in their order. */
    List<String> pageIds();

    /** Id of the first page. */
    String firstPage();
}
