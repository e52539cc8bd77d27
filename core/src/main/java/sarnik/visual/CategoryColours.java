package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.scale.Palette;

/**
 * The colours of the values of a category. Which value has which colour depends on all rows of the dataset, or on a
 * shared key, never on what is narrowed: a value wears the same colour on every visual.
 */
public final class CategoryColours {

    private final List<String> order;
    private final List<String> colours;

    private CategoryColours(List<String> order, List<String> colours) {
        this.order = order;
        this.colours = colours;
    }

    /**
     * @param colour what the author says of them, or the key they wear; null for the usual
     * @throws MisfitException when the palette cannot be read
     */
    public static CategoryColours of(LoadedDataset dataset, String column, Colour colour, Scene scene) {
        Colour worn = colour;
        if (colour != null && colour.key() != null) {
            Optional<SharedKey> key = scene.key(colour.key());
            if (key.isPresent()) worn = key.get().colour();
        }
        List<String> order = Colouring.order(
                dataset.table()
                        .find(column)
                        .orElseThrow(() -> new MisfitException(phrase("There is no column “{0}” any more", column))),
                worn == null ? null : worn.order(),
                Colouring.MOST_CATEGORIES);
        return new CategoryColours(order, Colouring.categorical(worn).colours(order.size()));
    }

    /** The colour of a value; that of all others where it has none of its own. */
    public String of(String value) {
        int at = value == null ? -1 : order.indexOf(value);
        return at < 0 ? Palette.OTHERS : colours.get(at);
    }

    /** Values in the order in which colours are given, the rest behind them in their own. */
    public List<String> inOrder(List<String> values) {
        List<String> sorted = new ArrayList<>(order);
        sorted.retainAll(values);
        for (String value : values) if (!sorted.contains(value)) sorted.add(value);
        return sorted;
    }
}
