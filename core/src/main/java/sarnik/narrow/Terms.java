package sarnik.narrow;

import java.util.List;

/**
 * The terms on which a filter is turned: how far it reaches, and what holds before anybody has turned it.
 *
 * @param first what it keeps until the reader says otherwise, as an address has it: {@code still,warm} or {@code
 *     ~last.30.day}; null for everything
 * @param everywhere whether it narrows every page; null for its own page alone
 * @param required whether nothing is shown before something is chosen; null for no
 * @param hidden whether it is turned by addresses and links alone, and stands nowhere; null for no
 * @param under ids of the filters that it depends on: it offers only what they leave; null for none
 * @param across whether rows of other datasets follow it through any ties, over several hops; null where only those do
 *     whose own column is tied to its column
 */
public record Terms(
        String first, Boolean everywhere, Boolean required, Boolean hidden, List<String> under, Boolean across) {

    public static final Terms NOTHING = new Terms(null, null, null, null, null, null);

    public boolean reachesAllPages() {
        return Boolean.TRUE.equals(everywhere);
    }

    public boolean mustBeTurned() {
        return Boolean.TRUE.equals(required);
    }

    public boolean standsNowhere() {
        return Boolean.TRUE.equals(hidden);
    }

    public boolean goesAcross() {
        return Boolean.TRUE.equals(across);
    }

    public List<String> dependsOn() {
        return under == null ? List.of() : under;
    }
}
