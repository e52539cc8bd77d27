package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.locationtech.jts.algorithm.locate.SimplePointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.Polygon;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.data.RolledUp;
import sarnik.geo.Near;
import sarnik.place.Place;
import sarnik.query.Having;
import sarnik.scale.NumberWords;
import sarnik.state.Value;
import sarnik.visual.Asked;
import sarnik.visual.Picked;
import sarnik.visual.Plan;
import sarnik.visual.Scene;

/** What picks on a map mean: the places of a list, of a class of a scale, of a ring, of an extent, or near a place. */
final class PickedPlaces {

    private PickedPlaces() {}

    /**
     * @param read finds a layer as the reader has set it
     */
    static Picked of(MapVisual map, Value.Pick pick, Scene scene, Function<String, Layer> read) {
        if (pick instanceof Value.Values of) return Picked.values(of.values());
        if (pick instanceof Value.OfClass of) return ofClass(map, of, scene, read);
        if (pick instanceof Value.Near near) {
            Place from = places(map, scene.datasets())
                    .filter(p -> p.id().equals(near.place()))
                    .findFirst()
                    .orElse(null);
            if (from == null) return Picked.values(List.of());
            return where(map, scene, p -> Near.within(near.metres(), from.lon(), from.lat(), p.lon(), p.lat()));
        }
        if (pick instanceof Value.Extent box)
            return where(
                    map, scene, p -> Near.inBox(p.lon(), p.lat(), box.west(), box.south(), box.east(), box.north()));
        if (pick instanceof Value.Ring ring) {
            Polygon within = polygon(ring.corners());
            return where(
                    map,
                    scene,
                    p -> SimplePointInAreaLocator.locate(new Coordinate(p.lon(), p.lat()), within)
                            != Location.EXTERIOR);
        }
        return Picked.values(List.of());
    }

    private static Polygon polygon(List<Double> corners) {
        int count = corners.size() / 2;
        Coordinate[] ring = new Coordinate[count + 1];
        for (int i = 0; i < count; i++) ring[i] = new Coordinate(corners.get(2 * i), corners.get(2 * i + 1));
        ring[count] = ring[0];
        return new GeometryFactory().createPolygon(ring);
    }

    /** All places that layers of the map may show. */
    private static Stream<Place> places(MapVisual map, Datasets datasets) {
        return map.layers().values().stream()
                .flatMap(layer -> datasets.ready(layer.dataset()).stream()
                        .flatMap(d -> d.placesOf(layer.placeColumn()).values().stream()));
    }

    private static Picked where(MapVisual map, Scene scene, Predicate<Place> test) {
        return Picked.values(places(map, scene.datasets())
                .filter(test)
                .map(Place::id)
                .distinct()
                .sorted()
                .toList());
    }

    /** The places whose value lies in a class, found by asking as the layer does. */
    private static Picked ofClass(MapVisual map, Value.OfClass of, Scene scene, Function<String, Layer> read) {
        if (!map.layers().containsKey(of.layer()))
            throw new MisfitException(phrase("The layer on which a class was picked has been taken away"));
        Layer layer = read.apply(of.layer());
        LayerRows rows = new LayerRows(of.layer(), layer, scene, new Plan());
        if (layer.colour() == null || layer.colour().measure() == null)
            throw new MisfitException(
                    phrase("The colours of the layer on which a class was picked stand for no measure"));
        String column = layer.kind() == Layer.Kind.AREAS
                ? PlaceMarks.setOf(layer, rows.dataset())
                        .filter(set -> layer.set() != null)
                        .map(RolledUp::column)
                        .orElse(layer.placeColumn())
                : layer.placeColumn();
        Asked all = rows.domain(List.of(column), List.of(layer.colour().measure()), null);
        Having inClass =
                new Having(0, of.low(), false, of.high(), true, of.missing(), phrase("Only the class that is picked"));
        return new Picked.Among(new Asked(all.dataset(), all.query().having(inClass)), 0);
    }

    private static String within(String name, Double low, Double high) {
        if (low == null) return phrase("{0} up to {1}", name, NumberWords.full(high == null ? 0 : high));
        return high == null
                ? phrase("{0} above {1}", name, NumberWords.full(low))
                : phrase("{0} above {1} up to {2}", name, NumberWords.full(low), NumberWords.full(high));
    }

    /** What was picked in words; empty where it is a list of places. */
    static Optional<String> words(MapVisual map, Value.Pick pick, Datasets datasets) {
        if (pick instanceof Value.OfClass of) {
            Layer layer = map.layers().get(of.layer());
            String name = layer == null
                    ? phrase("a layer that has gone")
                    : layer.name() != null && !layer.name().isBlank()
                            ? layer.name()
                            : datasets.ready(layer.dataset())
                                    .map(d -> LayerRows.nameOf(layer, d))
                                    .orElse(phrase("a layer"));
            return Optional.of(
                    of.missing() ? phrase("what has no data in {0}", name) : within(name, of.low(), of.high()));
        }
        if (pick instanceof Value.Near near)
            return Optional.of(phrase(
                    "within {0} km of {1}",
                    NumberWords.full(near.metres() / 1000),
                    places(map, datasets)
                            .filter(p -> p.id().equals(near.place()))
                            .findFirst()
                            .map(Place::said)
                            .orElse(near.place())));
        if (pick instanceof Value.Ring) return Optional.of(phrase("what lies in the ring that was drawn"));
        if (pick instanceof Value.Extent) return Optional.of(phrase("what lies in the box that was drawn"));
        return Optional.empty();
    }
}
