package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.DoubleStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.scale.ColourScale.About;
import sarnik.scale.ColourScale.Centre;
import sarnik.scale.ColourScale.Choice;

class ColourScaleTest {

    private static Choice choice(Classes.Method method, int classes, Centre centre) {
        return new Choice(
                false, method, classes, centre == null ? "loch" : "rust to loch", false, centre, null, null, null);
    }

    @Test
    void fixedEndsHoldWhatLiesBeyondAndTellIt() {
        ColourScale scale = ColourScale.of(
                new Choice(false, Classes.Method.EQUAL_STEPS, 4, "loch", false, null, 0.0, 100.0, null),
                new double[] {-5, 10, 60, 1000, 2000});
        assertThat(scale.classes().breaks()).containsExactly(25, 50, 75);
        assertThat(DoubleStream.of(-5, 0, 10, 100, 1000, Double.NaN, Double.POSITIVE_INFINITY)
                        .mapToInt(scale::beyond))
                .containsExactly(-1, 0, 0, 0, 1, 0, 0);
        assertThat(scale.classOf(2000)).isEqualTo(3);
        assertThat(scale.classOf(-5)).isZero();
        assertThat(scale.classOf(Double.POSITIVE_INFINITY)).isEqualTo(-1);
        assertThat(scale.spread(new double[] {-5, 10, 60, 1000, 2000}, 4)).containsExactly(2, 0, 1, 2);
    }

    @ParameterizedTest
    @CsvSource({"VALUE, 10", "MEAN, 22.2", "MEDIAN, 11"})
    void aCentreHasABreakOnIt(About about, double centre) {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 4, new Centre(about, 10.0, null, null)),
                new double[] {0, 5, 11, 20, 75});
        assertThat(Arrays.stream(scale.classes().breaks()).boxed().toList())
                .anySatisfy(b -> assertThat(b).isCloseTo(centre, within(1e-9)));
    }

    @Test
    void aMedianOfAnEvenNumberLiesBetweenTheMiddleTwo() {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 2, new Centre(About.MEDIAN, null, null, null)),
                new double[] {40, 1, 10, 5});
        assertThat(scale.classes().breaks()).containsExactly(7.5);
    }

    @Test
    void aCentreThatIsNotSaidIsNought() {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 2, new Centre(About.VALUE, null, null, null)),
                new double[] {-40, 1, 10});
        assertThat(scale.classes().breaks()).containsExactly(0);
        assertThat(scale.classOf(0)).as("on the centre").isZero();
        assertThat(scale.classOf(1)).isEqualTo(1);
    }

    @Test
    void eachSideIsCutForItself() {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 5, new Centre(About.VALUE, 0.0, null, null)),
                new double[] {-40, -20, 0, 10, 100, 200});
        assertThat(scale.classes().breaks()).as("two on each side of nought").containsExactly(-20, 0, 105);
        assertThat(scale.classes().low()).isEqualTo(-40);
        assertThat(scale.classes().high()).isEqualTo(200);
        ColourScale above = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 4, new Centre(About.VALUE, 0.0, null, null)),
                new double[] {10, 20, 30});
        assertThat(above.classes().breaks()).as("nothing lies below").containsExactly(20);
        assertThat(ColourScale.of(
                                choice(Classes.Method.EQUAL_STEPS, 3, new Centre(About.VALUE, 0.0, null, null)),
                                new double[] {-1, -2, 5, 9})
                        .classes()
                        .breaks())
                .as("one on each side")
                .containsExactly(0);
    }

    private static ColourScale ramp(Centre centre, double... values) {
        return ColourScale.of(
                new Choice(true, null, 5, centre == null ? "loch" : "rust to loch", false, centre, null, null, null),
                values);
    }

    @Test
    void aRampReachesToItsCentreWhereAllLieOnOneSide() {
        ColourScale scale = ramp(new Centre(About.VALUE, 0.0, null, null), 32, 64);
        assertThat(scale.classes().low()).isZero();
        assertThat(scale.classes().high()).isEqualTo(64);
        assertThat(scale.classes().breaks()).hasSize(63).startsWith(1, 2).endsWith(62, 63);
        ColourScale under = ramp(new Centre(About.VALUE, 0.0, null, null), -64, -32);
        assertThat(under.classes().low()).isEqualTo(-64);
        assertThat(under.classes().high()).isZero();
        assertThat(under.classes().breaks()).hasSize(63).startsWith(-63);
        assertThat(ramp(null, 5, 5).classes().count()).as("one value").isOne();
    }

    @Test
    void theColoursOfADivergingRampGoByTheDistanceFromItsCentre() {
        ColourScale scale = ramp(new Centre(About.VALUE, 0.0, null, null), -64, 64);
        Palette palette = Palette.of("rust to loch");
        assertThat(scale.colours().get(0))
                .isEqualTo(palette.at(0.5 - 63 / 64.0 / 2).hex());
        assertThat(scale.colours().get(31))
                .isEqualTo(palette.at(0.5 - 1 / 64.0 / 2).hex());
        assertThat(scale.colours().get(32))
                .isEqualTo(palette.at(0.5 + 1 / 64.0 / 2).hex());
        assertThat(scale.colours().get(63))
                .isEqualTo(palette.at(0.5 + 63 / 64.0 / 2).hex());
    }

    @Test
    void theColoursOfClassesStepAwayFromTheCentre() {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 4, new Centre(About.VALUE, 0.0, null, null)),
                new double[] {-40, -20, -10, 10, 20, 40});
        Palette palette = Palette.of("rust to loch");
        assertThat(scale.classes().breaks()).containsExactly(-25, 0, 25);
        assertThat(scale.colours())
                .containsExactly(
                        palette.at(0).hex(),
                        palette.at(0.25).hex(),
                        palette.at(0.75).hex(),
                        palette.at(1).hex());
    }

    @Test
    void ownBreaksAreKeptAndWidenTheEnds() {
        Choice own = new Choice(false, null, 5, "loch", false, null, null, null, List.of(10.0, 20.0));
        ColourScale beyond = ColourScale.of(own, new double[] {12, 15});
        assertThat(beyond.classes().breaks()).containsExactly(10, 20);
        assertThat(beyond.classes().low()).isEqualTo(10);
        assertThat(beyond.classes().high()).isEqualTo(20);
        ColourScale within = ColourScale.of(own, new double[] {5, 25});
        assertThat(within.classes().low()).isEqualTo(5);
        assertThat(within.classes().high()).isEqualTo(25);
        ColourScale none = ColourScale.of(
                new Choice(false, null, 5, "loch", false, null, null, null, List.of()), new double[] {5, 25});
        assertThat(none.classes().count()).isOne();
        assertThat(none.classes().low()).isEqualTo(5);
        assertThat(none.classes().high()).isEqualTo(25);
        for (List<Double> wrong : List.of(List.of(2.0, 1.0), List.of(1.0, 1.0)))
            assertThatThrownBy(() -> ColourScale.of(
                            new Choice(false, null, 5, "loch", false, null, null, null, wrong), new double[] {5}))
                    .hasMessageContaining("have to ascend");
    }

    @Test
    void endsHaveToAscend() {
        for (double high : new double[] {5, 4})
            assertThatThrownBy(() -> ColourScale.check(
                            new Choice(false, Classes.Method.NATURAL, 5, "loch", false, null, 5.0, high, null)))
                    .hasMessageContaining("has to lie below");
        ColourScale.check(new Choice(false, Classes.Method.NATURAL, 5, "loch", false, null, 5.0, null, null));
        ColourScale.check(new Choice(false, Classes.Method.NATURAL, 5, "loch", false, null, null, 4.0, null));
    }

    @Test
    void aScaleAboutANumberOfTheReadersIsCheckedBeforeItIsKnown() {
        Choice open = choice(Classes.Method.NATURAL, 5, new Centre(About.PARAMETER, null, true, "n1"));
        ColourScale.check(open);
        assertThatThrownBy(() -> ColourScale.of(open, new double[] {1})).hasMessageContaining("is not known");
        assertThatThrownBy(() -> ColourScale.check(choice(Classes.Method.NATURAL, 1, null)))
                .hasMessageContaining("2 to 11");
    }

    @Test
    void valuesAreCountedIntoBarsOfEqualWidth() {
        ColourScale scale = ColourScale.of(
                new Choice(false, Classes.Method.EQUAL_STEPS, 2, "loch", false, null, 10.0, 20.0, null),
                new double[] {10, 20});
        assertThat(scale.spread(new double[] {10, 12.4, 12.5, 15, 20, Double.NaN, 9, 30}, 4))
                .containsExactly(3, 1, 1, 2);
        ColourScale one = ColourScale.of(choice(Classes.Method.EQUAL_STEPS, 2, null), new double[] {7, 7});
        assertThat(one.spread(new double[] {7, 7}, 3)).containsExactly(2, 0, 0);
    }

    @Test
    void eachSideOfACentreHasItsHue() {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 6, new Centre(About.VALUE, 0.0, null, null)),
                new double[] {-30, -15, -1, 1, 15, 30});
        List<Oklch> colours = scale.colours().stream().map(Oklch::of).toList();
        assertThat(colours).hasSize(6);
        assertThat(colours.get(0).lightness()).isLessThan(colours.get(2).lightness());
        assertThat(colours.get(5).lightness()).isLessThan(colours.get(3).lightness());
        assertThat(colours.get(0).hue()).isCloseTo(42, within(6.0));
        assertThat((colours.get(5).hue() + 360) % 360).isCloseTo(205, within(8.0));
    }

    /** Twenty below the centre and eighty above it: the shorter side goes a quarter of the way. */
    @ParameterizedTest(name = "ramp: {0}")
    @CsvSource({"true", "false"})
    void sidesRunInFullOrAreEquallyDeepAtEqualDistance(boolean ramp) {
        double[] values = {-20, -10, 0, 10, 20, 40, 80};
        List<String> full = sides(ramp, null, values);
        List<String> even = sides(ramp, true, values);
        Palette palette = Palette.of("rust to loch");
        assertThat(full.get(0))
                .isEqualTo(
                        palette.at(ramp ? 0.5 - 0.5 * (20 - 50.0 / 64) / 20 : 0).hex());
        assertThat(even.get(0))
                .isEqualTo(palette.at(ramp ? 0.5 - 0.125 * (20 - 50.0 / 64) / 20 : 0.375)
                        .hex());
        assertThat(even.get(even.size() - 1)).isEqualTo(full.get(full.size() - 1));
    }

    private static List<String> sides(boolean ramp, Boolean even, double[] values) {
        return ColourScale.of(
                        new Choice(
                                ramp,
                                Classes.Method.EQUAL_STEPS,
                                4,
                                "rust to loch",
                                false,
                                new Centre(About.VALUE, 0.0, even, null),
                                null,
                                null,
                                null),
                        values)
                .colours();
    }

    @Test
    void allOnOneSideOfTheCentreWearOneHue() {
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.EQUAL_STEPS, 4, new Centre(About.VALUE, 100.0, null, null)),
                new double[] {1, 2, 3});
        assertThat(scale.colours())
                .allSatisfy(c -> assertThat(Oklch.of(c).hue()).isCloseTo(42, within(8.0)));
    }

    @Test
    void aRampRunsOnAndCanBeReversed() {
        Choice ramp = new Choice(true, Classes.Method.NATURAL, 5, "loch", false, null, null, null, null);
        ColourScale scale = ColourScale.of(ramp, new double[] {0, 64});
        assertThat(scale.colours()).hasSize(ColourScale.RAMP_STEPS);
        assertThat(new int[] {scale.classOf(0), scale.classOf(32), scale.classOf(64)})
                .containsExactly(0, 31, 63);
        ColourScale reversed = ColourScale.of(
                new Choice(true, Classes.Method.NATURAL, 5, "loch", true, null, null, null, null),
                new double[] {0, 64});
        assertThat(reversed.colours().get(0)).isEqualTo(scale.colours().get(63));
    }

    @ParameterizedTest
    @EnumSource(Classes.Method.class)
    void oddValuesMakeAScaleThatHolds(Classes.Method method) {
        for (double[] values : new double[][] {
            {},
            {Double.NaN},
            {5},
            {5, 5, 5},
            {-3, -2, -1},
            {Double.POSITIVE_INFINITY, 1, 2},
            {0, 0, 1e300},
            {-1e-300, 1e-300}
        }) {
            for (Centre centre : Arrays.asList(
                    null, new Centre(About.MEAN, null, null, null), new Centre(About.VALUE, 0.0, null, null))) {
                ColourScale scale = ColourScale.of(choice(method, 5, centre), values);
                assertThat(scale.colours().size()).isEqualTo(scale.classes().count());
                for (double v : values)
                    assertThat(scale.classOf(v))
                            .isBetween(
                                    Double.isFinite(v) ? 0 : -1, scale.colours().size() - 1);
            }
        }
    }

    @Property(tries = 200)
    void everyValueHasAClassThatHoldsIt(
            @ForAll @Size(min = 1, max = 40) int[] numbers, @ForAll @IntRange(min = 2, max = 11) int classes) {
        double[] values = Arrays.stream(numbers).mapToDouble(n -> n % 1000).toArray();
        ColourScale scale = ColourScale.of(
                choice(Classes.Method.NATURAL, classes, new Centre(About.MEDIAN, null, null, null)), values);
        double[] breaks = scale.classes().breaks();
        for (double v : values) {
            int c = scale.classOf(v);
            if (c > 0) assertThat(v).isGreaterThan(breaks[c - 1]);
            if (c < breaks.length) assertThat(v).isLessThanOrEqualTo(breaks[c]);
        }
    }

    @Test
    void ownBreaksArePromises() {
        ColourScale scale = ColourScale.of(
                new Choice(
                        false, Classes.Method.NATURAL, 5, "loch", false, null, null, null, List.of(10.0, 20.0, 900.0)),
                new double[] {12, 15});
        assertThat(scale.classes().breaks()).containsExactly(10, 20, 900);
        assertThat(scale.classOf(12)).isEqualTo(1);
    }

    @Nested
    class Palettes {

        /** Machado, Oliveira and Fernandes 2009, severity 1: red, green and blue blindness, on linear RGB. */
        private static final double[][][] BLIND = {
            {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}},
            {{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}},
            {{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}},
            {{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}
        };

        private static double[] seen(String hex, double[][] eye) {
            double[] rgb = new double[3];
            for (int i = 0; i < 3; i++) {
                double v = Integer.parseInt(hex.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
                rgb[i] = v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
            }
            double[] s = new double[3];
            for (int i = 0; i < 3; i++)
                s[i] = Math.max(0, Math.min(1, eye[i][0] * rgb[0] + eye[i][1] * rgb[1] + eye[i][2] * rgb[2]));
            double l = Math.cbrt(0.4122214708 * s[0] + 0.5363325363 * s[1] + 0.0514459929 * s[2]);
            double m = Math.cbrt(0.2119034982 * s[0] + 0.6806995451 * s[1] + 0.1073969566 * s[2]);
            double k = Math.cbrt(0.0883024619 * s[0] + 0.2817188376 * s[1] + 0.6299787005 * s[2]);
            return new double[] {
                0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * k,
                1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * k,
                0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * k
            };
        }

        /** The least OKLab distance between two of the colours, for the best and the three blind eyes. */
        private static double nearest(List<String> colours, boolean onlyNeighbours) {
            double nearest = Double.MAX_VALUE;
            for (double[][] eye : BLIND) {
                for (int i = 0; i < colours.size(); i++) {
                    for (int j = i + 1; j < (onlyNeighbours ? Math.min(i + 2, colours.size()) : colours.size()); j++) {
                        double[] a = seen(colours.get(i), eye);
                        double[] b = seen(colours.get(j), eye);
                        nearest = Math.min(
                                nearest,
                                Math.sqrt((a[0] - b[0]) * (a[0] - b[0])
                                        + (a[1] - b[1]) * (a[1] - b[1])
                                        + (a[2] - b[2]) * (a[2] - b[2])));
                    }
                }
            }
            return nearest;
        }

        @Test
        void categoriesAreToldApartByEveryEye() {
            for (String name : Palette.names(Palette.Kind.CATEGORICAL))
                assertThat(nearest(Palette.ALL.get(name).colours(8), false))
                        .as(name)
                        .isGreaterThan(0.1);
        }

        @Test
        void neighbouringClassesAreToldApartByEveryEye() {
            for (Palette palette : Palette.ALL.values()) {
                if (palette.kind() != Palette.Kind.SEQUENTIAL) continue;
                for (int classes = 2; classes <= 7; classes++)
                    assertThat(nearest(palette.colours(classes), true))
                            .as("%s in %d classes", palette.name(), classes)
                            .isGreaterThan(0.045);
            }
        }

        @Test
        void neighbouringClassesOfADivergingScaleAreToldApartByEveryEye() {
            double[] values = java.util.stream.DoubleStream.iterate(-10, v -> v + 0.5)
                    .limit(41)
                    .toArray();
            for (String name : Palette.names(Palette.Kind.DIVERGING)) {
                for (int classes = 2; classes <= 8; classes += 2) {
                    Choice choice = new Choice(
                            false,
                            Classes.Method.EQUAL_STEPS,
                            classes,
                            name,
                            false,
                            new Centre(About.VALUE, 0.0, null, null),
                            null,
                            null,
                            null);
                    assertThat(nearest(ColourScale.of(choice, values).colours(), true))
                            .as("%s in %d classes", name, classes)
                            .isGreaterThan(0.045);
                }
            }
        }

        @Test
        void divergingEndsAreToldApartByEveryEye() {
            for (String name : Palette.names(Palette.Kind.DIVERGING)) {
                List<String> colours = Palette.ALL.get(name).colours(6);
                assertThat(nearest(List.of(colours.get(0), colours.get(5)), false))
                        .as(name)
                        .isGreaterThan(0.08);
            }
        }

        @Test
        void divergingLightnessIsEvenAndTheSameOnBothSides() {
            for (String name : Palette.names(Palette.Kind.DIVERGING)) {
                List<Oklch> colours =
                        Palette.ALL.get(name).colours(7).stream().map(Oklch::of).toList();
                List<Double> steps = new ArrayList<>();
                for (int i = 0; i < 3; i++) {
                    assertThat(colours.get(i).lightness())
                            .as(name)
                            .isCloseTo(colours.get(6 - i).lightness(), within(0.02));
                    steps.add(colours.get(i + 1).lightness() - colours.get(i).lightness());
                }
                assertThat(steps).as(name).allSatisfy(s -> assertThat(s).isCloseTo(steps.get(0), within(0.03)));
            }
        }

        @Test
        void coloursAreReadAndWrittenAlike() {
            for (String hex : List.of("#000000", "#ffffff", "#1f5f66", "#b5502b", "#ff0000", "#123456"))
                assertThat(Oklch.of(hex).hex()).isEqualTo(hex);
            assertThatThrownBy(() -> Oklch.of("#12345")).hasMessageContaining("#12345");
        }

        @Test
        void ownColoursMakeAPalette() {
            assertThat(Palette.of("#ffffff #000000").colours(3))
                    .startsWith("#ffffff")
                    .endsWith("#000000");
            assertThatThrownBy(() -> Palette.of("blue")).hasMessageContaining("blue");
            assertThatThrownBy(() -> Palette.of("#112233")).hasMessageContaining("two or more");
            assertThatThrownBy(() -> Palette.of("#112233 #112233")).hasMessageContaining("twice in a row");
        }
    }

    @Test
    void likenessCountsEachMeasureInItsOwnDeviations() {
        // Two measures of which one has a thousand times the other's unit.
        double[] unlike =
                Standardised.distances(List.of(new double[] {0, 1, 2, Double.NaN}, new double[] {0, 1000, 2000, 0}), 0);
        assertThat(unlike[0]).isZero();
        // Population deviations: sqrt(2/3) of 0, 1, 2, and sqrt(687500) of 0, 1000, 2000, 0.
        assertThat(unlike[1]).isCloseTo(Math.sqrt(1 / (2 / 3.0) + 1e6 / 687500.0), within(1e-9));
        assertThat(unlike[3]).isNaN();
        assertThat(Standardised.distances(List.of(new double[] {7, 7}), 0)).containsExactly(0, 0);
    }
}
