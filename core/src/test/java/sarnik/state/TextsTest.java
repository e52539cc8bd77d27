package sarnik.state;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Label;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import sarnik.query.TimeStep;

/** What a reader has set comes back from an address as it was, whatever words and numbers it is made of. */
@Label("Values in an address")
class TextsTest {

    /** Words with all that has a meaning in an address, and some of every script. */
    @Provide
    Arbitrary<String> words() {
        return Arbitraries.oneOf(
                Arbitraries.strings()
                        .withChars("ab. ,_~*!%&=+/#?…ñ水é-'\"0123456789")
                        .ofMinLength(1)
                        .ofMaxLength(12),
                Arbitraries.of(
                        "St. Pere",
                        "3.5 km stone",
                        "c-2.46000,41.76000",
                        "a_b",
                        "~class.l1.none",
                        "*",
                        "!",
                        "..",
                        "50%",
                        "aSet of ours/N.1",
                        "2025-06",
                        "5000.3108681",
                        "100.25"));
    }

    @Provide
    Arbitrary<Double> degrees() {
        return Arbitraries.doubles().between(-180, 180).ofScale(5);
    }

    @Provide
    Arbitrary<Double> metres() {
        return Arbitraries.oneOf(
                Arbitraries.integers().between(0, 20_000_000).map(Integer::doubleValue),
                Arbitraries.doubles().between(0, 20_000).ofScale(3));
    }

    @Provide
    Arbitrary<Value.Pick> picks() {
        Arbitrary<Value.Pick> near =
                Combinators.combine(words(), metres()).as((place, metres) -> new Value.Near(place, metres));
        Arbitrary<Value.Pick> values = words().list().ofMinSize(1).ofMaxSize(5).map(Value.Values::new);
        Arbitrary<Value.Pick> ring = degrees().list().ofMinSize(3).ofMaxSize(8).map(half -> {
            List<Double> corners = new ArrayList<>(half);
            corners.addAll(half);
            return new Value.Ring(corners);
        });
        Arbitrary<Value.Pick> box =
                Combinators.combine(degrees(), degrees(), degrees(), degrees()).as(Value.Extent::new);
        Arbitrary<Value.Pick> span = Combinators.combine(words(), words()).as(Value.Span::new);
        Arbitrary<Double> bound = Arbitraries.doubles().between(-1e9, 1e9).injectNull(0.3);
        Arbitrary<Value.Pick> inClass = Combinators.combine(Arbitraries.of("l1", "", "layer2"), bound, bound)
                .as((layer, low, high) -> new Value.OfClass(layer, low, high, false));
        Arbitrary<Value.Pick> missing =
                Arbitraries.of("l1", "").map(layer -> new Value.OfClass(layer, null, null, true));
        return Arbitraries.oneOf(near, values, ring, box, span, inClass, missing);
    }

    @Property
    void aPickComesBackAsItWas(@ForAll("picks") Value.Pick pick) {
        assertThat(Texts.pick(pick.text())).as(pick.text()).contains(pick);
    }

    @Property
    void allButAPickComesBackAsItWas(@ForAll("picks") Value.Pick pick) {
        Value.Not others = new Value.Not(pick);
        assertThat(Texts.pick(others.text())).as(others.text()).contains(others);
        assertThat(Texts.pick(new Value.Not(others).text()))
                .as("all but all but some is said otherwise")
                .isEmpty();
    }

    @Property
    void aPickIsOneWordOfAnAddress(@ForAll("picks") Value.Pick pick) {
        assertThat(pick.text()).doesNotContain("&", "#", "=", " ", "+", "?", "\"");
    }

    @Property
    void whatLiesAroundAPointComesBackAsItWas(
            @ForAll("degrees") double lon,
            @ForAll("degrees") double twice,
            @ForAll("metres") double metres,
            @ForAll("words") String name) {
        Value.Around around = new Value.Around(lon, twice / 2, metres, name);
        assertThat(Texts.around(around.text())).as(around.text()).contains(around);
    }

    @Property
    void aRangeOfDaysComesBackAsItWas(@ForAll("days") LocalDate from, @ForAll("days") LocalDate to, @ForAll int open) {
        Value.Range range = new Value.Range(open % 3 == 0 ? null : from, open % 3 == 1 ? null : to);
        assertThat(Texts.range(range.text())).contains(range);
        if (range.from() != null && range.to() != null) assertThat(range.from()).isBeforeOrEqualTo(range.to());
    }

    @Provide
    Arbitrary<LocalDate> days() {
        return Arbitraries.longs()
                .between(
                        LocalDate.of(1000, 1, 1).toEpochDay(),
                        LocalDate.of(9999, 12, 31).toEpochDay())
                .map(LocalDate::ofEpochDay);
    }

    @Property
    void amountsComeBackAsTheyWere(@ForAll("amounts") Value.Amounts amounts) {
        assertThat(Texts.amounts(amounts.text())).as(amounts.text()).contains(amounts);
    }

    @Provide
    Arbitrary<Value.Amounts> amounts() {
        Arbitrary<Double> bound =
                Arbitraries.doubles().between(-1e12, 1e12).ofScale(6).map(d -> d == 0 ? 0.0 : d);
        return Combinators.combine(bound, bound, Arbitraries.of(0, 1, 2))
                .as((a, b, open) -> new Value.Amounts(open == 0 ? null : a, open == 1 ? null : b));
    }

    @Property
    void aPeriodComesBackAsItWas(@ForAll("periods") Value.Period period, @ForAll("days") LocalDate day) {
        assertThat(Texts.period(period.text())).contains(period);
        Value.Range days = period.on(day);
        assertThat(days.from()).isBeforeOrEqualTo(days.to());
        switch (period.which()) {
            case LAST, TO_DATE -> assertThat(days.to()).isEqualTo(day);
            case THIS -> assertThat(day).isBetween(days.from(), days.to());
            case BEFORE ->
                assertThat(days.to().plusDays(1))
                        .as("the step before ends where this one begins")
                        .isEqualTo(new Value.Period(Value.Period.Which.THIS, 1, period.step())
                                .on(day)
                                .from());
        }
    }

    @Provide
    Arbitrary<Value.Period> periods() {
        return Combinators.combine(
                        Arbitraries.of(Value.Period.Which.class),
                        Arbitraries.integers().between(1, 10_000),
                        Arbitraries.of(TimeStep.DAY, TimeStep.WEEK, TimeStep.MONTH, TimeStep.QUARTER, TimeStep.YEAR))
                .as((which, count, step) ->
                        new Value.Period(which, which == Value.Period.Which.LAST ? count : 1, step));
    }

    @Property
    void nothingThatIsTypedIntoAnAddressFails(@ForAll("typed") String text) {
        assertThatCode(() -> {
                    Texts.pick(text);
                    Texts.around(text);
                    Texts.range(text);
                    Texts.period(text);
                    Texts.amounts(text);
                    Texts.values(text);
                    ReaderState.parts(text, (part, id, value) -> {}, (name, value) -> {});
                })
                .doesNotThrowAnyException();
    }

    /** Beginnings of what can be read, with anything behind them, or anything at all. */
    @Provide
    Arbitrary<String> typed() {
        Arbitrary<String> begun = Arbitraries.of(
                "~near.",
                "~around.",
                "~ring.",
                "~box.",
                "~span.",
                "~class.",
                "~last.",
                "~this.",
                "!",
                "p.v1=",
                "..",
                "");
        return Combinators.combine(begun, Arbitraries.strings().ofMaxLength(20), words())
                .as((first, any, word) -> first + (any.hashCode() % 2 == 0 ? any : word));
    }

    @Property
    void aStateComesApartIntoWhatItWasMadeOf(@ForAll("picks") Value.Pick pick, @ForAll("words") String choice) {
        ReaderState state = ReaderState.NOTHING
                .with(ReaderState.Part.PICK, "v1", pick)
                .with(ReaderState.Part.FILTER, "f1", new Value.Choice(List.of(choice)))
                .with(ReaderState.Part.MOMENT, "p1", new Value.Moment(null, "2025-06"));
        Map<String, String> read = new HashMap<>();
        ReaderState.parts(
                state.text(),
                (part, id, text) -> read.put(part + " " + id, text),
                (name, text) -> read.put("named " + name, text));
        assertThat(read)
                .containsOnlyKeys("PICK v1", "FILTER f1", "MOMENT p1")
                .containsEntry("PICK v1", pick.text())
                .containsEntry("MOMENT p1", "..2025-06");
        assertThat(Texts.values(read.get("FILTER f1"))).containsExactly(choice);
    }

    /** An address that was kept before names and ids lost their points. */
    @Example
    void olderAddressesAreReadAsBefore() {
        assertThat(Texts.pick("~near.5000.3108681")).contains(new Value.Near("3108681", 5000));
        assertThat(Texts.pick("~near.2500.5.3108681")).contains(new Value.Near("3108681", 2500.5));
        assertThat(Texts.pick("~near.5000.c-2.46000%2C41.76000"))
                .as("a point of a row, whose id has points of its own")
                .contains(new Value.Near("c-2.46000,41.76000", 5000));
        assertThat(Texts.around("~around.-2.46_41.76_5000.St. Pere"))
                .contains(new Value.Around(-2.46, 41.76, 5000, "St. Pere"));
        assertThat(Texts.around("~around.-2.46_41.76_5000.5.Soria"))
                .contains(new Value.Around(-2.46, 41.76, 5000.5, "Soria"));
    }

    @Example
    void whatCannotBeIsNothing() {
        for (String text : List.of(
                "~near.x.3108681",
                "~near.5000",
                "~near.99999999999.1",
                "~ring.1_2_3_4",
                "~ring.1_2_3_4_5_6_7",
                "~box.1_2_3",
                "~box.1_2_3_NaN",
                "~span.1",
                "~class.l1",
                "~class.l1.1",
                "~class.l1.a_b",
                "~anything.1",
                "~",
                "!~near.x.1",
                "!")) assertThat(Texts.pick(text)).as(text).isEmpty();
        assertThat(Texts.around("~around.181_0_5.x")).isEmpty();
        assertThat(Texts.around("~around.0_91_5.x")).isEmpty();
        assertThat(Texts.range("2026-02-30..")).isEmpty();
        assertThat(Texts.range("2026-01-01..2026-02-01..2026-03-01")).isEmpty();
        assertThat(Texts.period("~last.0.day")).isEmpty();
        assertThat(Texts.period("~last.10001.day")).isEmpty();
        assertThat(Texts.period("~this.hour")).isEmpty();
        assertThat(Texts.amounts("..")).isEmpty();
        assertThat(Texts.amounts("1..2..3")).isEmpty();
        assertThat(Texts.amounts("Infinity..")).isEmpty();
    }

    @Example
    void aMonthOrAYearStandsForItsDays() {
        assertThat(Texts.range("2026-02"))
                .contains(new Value.Range(LocalDate.of(2026, 2, 1), LocalDate.of(2026, 2, 28)));
        assertThat(Texts.range("2024..2024-02"))
                .contains(new Value.Range(LocalDate.of(2024, 1, 1), LocalDate.of(2024, 2, 29)));
        assertThat(Texts.range("..2025")).contains(new Value.Range(null, LocalDate.of(2025, 12, 31)));
    }
}
