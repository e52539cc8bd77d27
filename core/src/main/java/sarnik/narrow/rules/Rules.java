package sarnik.narrow.rules;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import sarnik.data.Rule;
import sarnik.narrow.Filter;
import sarnik.narrow.Terms;

/**
 * Rules that the author has written once, and the reader turns on and off by name.
 *
 * @param rules by id
 */
public record Rules(String page, int order, long dataset, String title, Terms terms, Map<String, Named> rules)
        implements Filter {

    /**
     * A rule with a name.
     *
     * @param order its place among them
     */
    public record Named(String name, int order, Rule rule) {}

    @Override
    public String column() {
        return null;
    }

    @Override
    public String words() {
        return title() == null || title().isEmpty() ? "Only" : title();
    }

    /** Ids in their order. */
    List<String> inOrder() {
        return rules.entrySet().stream()
                .sorted(Comparator.comparingInt(
                        (Map.Entry<String, Named> e) -> e.getValue().order()))
                .map(Map.Entry::getKey)
                .toList();
    }
}
