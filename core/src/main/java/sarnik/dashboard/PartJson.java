package sarnik.dashboard;

import java.util.Map;
import sarnik.narrow.Filter;
import sarnik.visual.Visual;

/** Parts of a document as maps, lists, texts and numbers, and back. */
public interface PartJson {

    Map<String, Object> plain(Object part);

    /** @throws RuntimeException when it does not fit its form */
    Visual visual(Map<String, Object> plain);

    /** @throws RuntimeException when it does not fit its form */
    Filter filter(Map<String, Object> plain);
}
