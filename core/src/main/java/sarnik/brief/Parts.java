package sarnik.brief;

import java.util.List;
import java.util.stream.Stream;

/**
 * What of a dashboard another part can be about.
 *
 * @param visuals its visuals
 * @param controls its filters and the numbers that readers set
 * @param pages its pages in their order
 */
public record Parts(List<Part> visuals, List<Part> controls, List<Part> pages) {

    public static final Parts NONE = new Parts(List.of(), List.of(), List.of());

    /**
     * @param id its id
     * @param words what a person calls it
     * @param keyed of a visual: whether its colours, sizes or shapes stand for something; of a control: whether it
     *     stands on the sheet already
     * @param framed of a visual: whether it shows an extent that can be looked at
     */
    public record Part(String id, String words, boolean keyed, boolean framed) {

        public Part(String id, String words, boolean keyed) {
            this(id, words, keyed, false);
        }
    }

    /** What the part of this id is called. */
    public String nameOf(String id) {
        return Stream.of(visuals, controls, pages)
                .flatMap(List::stream)
                .filter(p -> p.id().equals(id))
                .map(Part::words)
                .findFirst()
                .orElse("something that has gone");
    }
}
