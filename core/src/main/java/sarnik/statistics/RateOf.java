package sarnik.statistics;

/** What a rate is of, from which follows how sure it is. */
public enum RateOf {
    /** Each of what it could happen to may have several, or none: a number of events. */
    EVENTS("events, of which each may have several"),
    /** Each is one of them or is not: a share. */
    SHARE("a share, of which each is one or not");

    private final String words;

    RateOf(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /**
     * Where a rate may well lie, 95 of 100.
     *
     * @param events how many were counted
     * @param over what it could happen to
     */
    public Interval interval(double events, double over) {
        return this == SHARE
                ? Rates.wilson(events, over, Rates.USUAL_CONFIDENCE)
                : Rates.poisson(events, over, Rates.USUAL_CONFIDENCE);
    }

    /**
     * Between which rates chance alone would let a group of this size lie.
     *
     * @param rate of the whole
     * @param over of the group
     */
    public Interval limits(double rate, double over, double confidence) {
        return this == SHARE ? Rates.funnelOfShare(rate, over, confidence) : Rates.funnel(rate, over, confidence);
    }

    /** Whether a rate rests on too few to be trusted. */
    public boolean isUnsure(double events, double over) {
        return this == SHARE ? Rates.isUnsureShare(events, over) : Rates.isUnsure(events);
    }
}
