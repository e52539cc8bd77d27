package sarnik.visual.button;

import sarnik.visual.Box;
import sarnik.visual.Visual;

/**
 * Something to press.
 *
 * @param words what stands on it
 * @param does what a press does
 */
public record Button(String page, Box at, String title, String words, Does does) implements Visual {

    /**
     * @param kind what happens
     * @param address where it leads; null for others
     * @param state what is chosen then, as the address of the page has it; null for others
     * @param visual id of the visual that is taken along; null for others
     * @param page id of the page that it leads to; null for others
     */
    public record Does(Kind kind, String address, String state, String visual, String page) {

        /** Something that leads to no page. */
        public Does(Kind kind, String address, String state, String visual) {
            this(kind, address, state, visual, null);
        }

        /** What a press on a button does. */
        public enum Kind {
            CLEAR("puts everything back"),
            STATE("shows what was chosen when it was made"),
            ADDRESS("leads elsewhere"),
            FIGURES("takes figures along"),
            PAGE("goes to another page");

            private final String words;

            Kind(String words) {
                this.words = words;
            }

            String words() {
                return words;
            }
        }
    }
}
