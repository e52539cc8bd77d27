package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import sarnik.scale.ColourScale;

/**
 * What a layer's scale is made with besides what the layer says.
 *
 * @param keys finds shared keys by name
 * @param parameters finds the values of parameters by id
 */
public record Scales(Function<String, Optional<SharedKey>> keys, Function<String, Optional<Double>> parameters) {

    /**
     * The scale that a layer wears: that of its shared key, about the value of its parameter. What has gone is noted.
     */
    public Colour worn(Colour own, List<String> notes) {
        Colour worn = own;
        if (own.key() != null) {
            Optional<SharedKey> shared = keys.apply(own.key());
            if (shared.isPresent()) worn = own.wearing(shared.get().colour());
            else
                notes.add(phrase(
                        "The shared key “{0}” has gone, so the layer wears a scale of its own. Choose another key in its brief.",
                        own.key()));
        }
        ColourScale.Centre centre = worn.centre();
        if (centre == null || centre.about() != ColourScale.About.PARAMETER) return worn;
        Optional<Double> value = Optional.ofNullable(centre.parameter()).flatMap(parameters);
        if (value.isEmpty())
            notes.add(
                    phrase(
                            "The number that the scale turned about is not of this dashboard, so it turns about the mean. Choose another centre in the layer’s brief."));
        return worn.about(value.map(v -> new ColourScale.Centre(ColourScale.About.VALUE, v, centre.even(), null))
                .orElse(new ColourScale.Centre(ColourScale.About.MEAN, null, centre.even(), null)));
    }
}
