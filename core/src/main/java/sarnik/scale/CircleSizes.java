package sarnik.scale;

/**
 * Radii of circles that stand for amounts.
 *
 * @param rule how the radius grows with the amount
 * @param largest the amount that gets the largest circle, above 0
 * @param radius the largest circle's radius, pixels
 */
public record CircleSizes(Rule rule, double largest, double radius) {

    /** The smallest radius of an amount above 0, pixels: smaller circles cannot be hit or seen. */
    public static final double SMALLEST = 2.5;

    private static final int STEPS = 5;

    /** How a radius grows with its amount. */
    public enum Rule {
        /** The area is proportional to the amount: the radius grows with its square root. */
        AREA(0.5),
        /** Larger circles are exaggerated to meet their underestimation by the eye: exponent 0.5716 (Flannery 1971). */
        FLANNERY(0.5716),
        /** Five sizes, whose areas are a fifth of the largest apart. */
        STEPPED(0.5);

        private final double exponent;

        Rule(double exponent) {
            this.exponent = exponent;
        }
    }

    /**
     * @param amount the value; a negative one is drawn by its size, as a ring
     * @return pixels, 0 for an amount that is missing (NaN) or 0
     */
    public double radius(double amount) {
        if (Double.isNaN(amount) || amount == 0 || !(largest > 0)) return 0;
        double share = Math.min(1, Math.abs(amount) / largest);
        if (rule == Rule.STEPPED) share = Math.ceil(share * STEPS) / STEPS;
        return Math.max(SMALLEST, radius * Math.pow(share, rule.exponent));
    }
}
