package sarnik.picture;

/** The colours of paper, ink and ground by day and by night; the same as the style sheet's. */
record Look(
        boolean night,
        String paper,
        String ink,
        String faint,
        String land,
        String water,
        String border,
        String province,
        String river,
        String town,
        String wood,
        String built,
        String road,
        String street) {

    private static final Look DAY = new Look(
            false, "#f7f4ec", "#23281f", "#5f6557", "#efe9da", "#dde5e1", "#a9a592", "#d3ccb8", "#b4c7c6", "#64685a",
            "#e2e3cc", "#ddd4c2", "#ba9870", "#fbf8f1");
    private static final Look NIGHT = new Look(
            true, "#171a17", "#e9e6dc", "#a5a798", "#262a25", "#141d20", "#596052", "#383e36", "#2c4348", "#a5a798",
            "#2a3129", "#343830", "#6b6150", "#3a3f38");

    static Look of(boolean night) {
        return night ? NIGHT : DAY;
    }
}
