package sarnik.picture;

import java.util.Optional;

/**
 * What lies under the layers of a picture.
 *
 * @param mood how it looks
 * @param detail 1 to 3: little, some, much
 * @param packs the data that ships
 * @param tiles pictures or vector tiles, for {@link Mood#TILES}; null for the other moods
 */
public record Ground(Mood mood, int detail, GroundPacks packs, Tiles tiles) {

    /** The moods of the shipped ground, and that of tiles. */
    public enum Mood {
        PAPER,
        OUTLINE,
        TINTED,
        PLAIN,
        TILES
    }

    /** Finds tiles in Web Mercator: PNG, JPEG, or vector tiles. */
    public interface Tiles {

        /**
         * @param z zoom; x, y column from the west, row from the north
         * @return empty where the source has none, or does not answer
         */
        Optional<byte[]> tile(int z, int x, int y);

        /** The nearest zoom that there are tiles of. */
        int nearest();
    }
}
