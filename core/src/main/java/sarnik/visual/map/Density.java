package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.geo.KernelDensity;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.scale.ColourScale;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;
import sarnik.visual.Asked;
import sarnik.visual.Key;
import sarnik.visual.Key.Swatch;
import sarnik.visual.Scales;

/** How thick points lie, plain or weighted by a measure. */
final class Density implements LayerKind {

    private static final Layer.Spread USUAL = new Layer.Spread(12, false);

    @Override
    public String hint() {
        return "where places lie thick";
    }

    @Override
    public String name(String what, LoadedDataset dataset) {
        return phrase("Density of {0}", dataset.name());
    }

    @Override
    public void sentence(LayerBrief brief) {
        brief.ofDataset(" of the places of ");
        brief.size(", weighted by ", "+ weight");
        brief.spread();
    }

    @Override
    public LayerPlan plan(LayerRows rows, Scales scales) {
        String column = rows.layer.placeColumn();
        Measure measure =
                rows.layer.size() == null ? Measure.ROWS : rows.layer.size().measure();
        Asked shown = rows.ask(List.of(column), List.of(measure));
        PlaceSheet sheet = rows.sheet(column);
        return new LayerPlan(shown, (answers, notes) -> draw(rows, sheet, measure, answers.of(shown), notes));
    }

    private static LayerDrawn draw(LayerRows rows, PlaceSheet sheet, Measure measure, Frame frame, List<String> notes) {
        Layer layer = rows.layer;
        int[] order = IntStream.range(0, frame.size())
                .filter(g -> sheet.index().containsKey(frame.key(0, g)))
                .toArray();
        int[] at =
                IntStream.of(order).map(g -> sheet.index().get(frame.key(0, g))).toArray();
        double[] weights = IntStream.of(order)
                .mapToDouble(g -> Double.isFinite(frame.value(0, g)) ? Math.max(0, frame.value(0, g)) : 0)
                .toArray();
        if (IntStream.of(order).anyMatch(g -> frame.value(0, g) < 0))
            notes.add(phrase("Places with a figure below zero have no density and are left out."));
        if (!rows.dataset().addsUp(measure))
            notes.add(phrase(
                    "“{0}” does not add up, so how thick it lies says little. Weigh by a sum or a number of rows.",
                    ColumnWords.of(measure)));
        Layer.Spread spread = layer.spread() == null ? USUAL : layer.spread();
        double peak = Double.NaN;
        if (spread.metres()) {
            double[] lon = IntStream.of(at).mapToDouble(i -> sheet.lon()[i]).toArray();
            double[] lat = IntStream.of(at).mapToDouble(i -> sheet.lat()[i]).toArray();
            peak = new KernelDensity(lon, lat, weights, spread.radius()).peak();
        }
        return new LayerDrawn.OfDensity(
                rows.head(notes),
                sheet.tag(),
                at,
                IntStream.range(0, weights.length)
                        .mapToDouble(i -> NumberWords.shown(weights[i]))
                        .toArray(),
                spread.radius(),
                spread.metres(),
                peak,
                key(layer, rows.dataset().words(measure), peak, spread));
    }

    /** The key of a ramp from nothing to the peak; in pixels the browser puts in the peak it finds at its zoom. */
    private static Key key(Layer layer, String words, double peak, Layer.Spread spread) {
        Palette palette;
        boolean reversed =
                layer.colour() != null && Boolean.TRUE.equals(layer.colour().reversed());
        try {
            palette = Palette.of(
                    layer.colour() == null || layer.colour().palette() == null
                            ? "rust"
                            : layer.colour().palette());
        } catch (IllegalArgumentException unfit) {
            throw new MisfitException(unfit.getMessage());
        }
        List<String> colours = new ArrayList<>(palette.colours(ColourScale.RAMP_STEPS));
        if (reversed) java.util.Collections.reverse(colours);
        List<Swatch> swatches = colours.stream().map(c -> new Swatch(c, "", 0)).toList();
        String unit = spread.metres()
                ? phrase("{0} per km², within {1}", words, distance(spread.radius()))
                : phrase("{0} per km², within {1} pixels", words, NumberWords.full(spread.radius()));
        Key.Draft key = new Key.Draft();
        key.colourWords = unit;
        key.colours = swatches;
        key.ramp = true;
        key.low = 0.0;
        key.high = Double.isNaN(peak) ? null : peak;
        key.turns = true;
        return key.key();
    }

    private static String distance(double metres) {
        return metres >= 1000 ? NumberWords.full(metres / 1000) + " km" : NumberWords.full(metres) + " m";
    }
}
