package sarnik.visual.map;

import sarnik.statistics.RateOf;
import sarnik.statistics.StandardPopulation;

/**
 * How far the rates that a layer shows can be trusted, and which of them are more than chance.
 *
 * @param of what the rate is of; null to guess it
 * @param toward whether rates of few are drawn toward the whole; null for no
 * @param ages how rates are made comparable where ages differ; null for as they were counted
 * @param clusters what is looked for in the place of the values themselves; null for nothing
 */
public record Chance(Of of, Boolean toward, Ages ages, Clusters clusters) {

    static final Chance GUESSED = new Chance(null, null, null, null);

    /** What a rate is of, or that it is none. */
    public enum Of {
        EVENTS(RateOf.EVENTS, RateOf.EVENTS.words()),
        SHARE(RateOf.SHARE, RateOf.SHARE.words()),
        NONE(null, "no rate, so nothing is marked");

        private final RateOf rate;
        private final String words;

        Of(RateOf rate, String words) {
            this.rate = rate;
            this.words = words;
        }

        RateOf rate() {
            return rate;
        }

        String words() {
            return words;
        }
    }

    /**
     * @param band column of age bands or of ages in years
     * @param like by whose ages
     */
    public record Ages(String band, Like like) {}

    /** By whose ages rates are made comparable. */
    public enum Like {
        EUROPE_2013("as Europe’s standard of 2013"),
        WORLD_2000("as the world’s standard of 2000 to 2025"),
        /** The ages of all places together. */
        TOGETHER("as all places together"),
        /** What is counted over what there would be if each age had the rate it has in all places together. */
        EXPECTED("by what would be expected of its own ages");

        private final String words;

        Like(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }

        /** A published standard by whose bands ages are cut; the one of Europe where the ages are the table's own. */
        StandardPopulation standard() {
            return this == WORLD_2000 ? StandardPopulation.WORLD_2000 : StandardPopulation.EUROPE_2013;
        }
    }

    /**
     * @param by how they are looked for
     * @param near which places are neighbours
     */
    public record Clusters(By by, Near near) {}

    /** How clusters are looked for. */
    public enum By {
        TOGETHER("high and low ones together", "each place with its neighbours (Gi*)"),
        BESIDE("alike and unlike their neighbours", "each place beside its neighbours (local Moran’s I)");

        private final String words;
        private final String hint;

        By(String words, String hint) {
            this.words = words;
            this.hint = hint;
        }

        String words() {
            return words;
        }

        String hint() {
            return hint;
        }
    }

    /**
     * Which places are neighbours; all null for those that touch, and the nearest where nothing touches.
     *
     * @param km those within so many kilometres
     * @param nearest so many of the nearest
     */
    public record Near(Double km, Integer nearest) {

        boolean isTouching() {
            return km == null && nearest == null;
        }
    }

    boolean isToward() {
        return Boolean.TRUE.equals(toward);
    }
}
