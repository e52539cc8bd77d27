package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.dashboard.Arrangement.Act;
import sarnik.data.Datasets;
import sarnik.data.MisfitException;
import sarnik.narrow.StateReader;
import sarnik.visual.Box;

@DisplayName("Visuals arranged together")
class ArrangementTest {

    /** A page with visuals in these boxes, each x, y, w, h; the first is v1. */
    private static DashboardDocument page(int[]... boxes) {
        List<String> visuals = new ArrayList<>();
        for (int i = 0; i < boxes.length; i++)
            visuals.add("'v%d': {'page': 'p1', 'at': {'x': %d, 'y': %d, 'w': %d, 'h': %d}, 'title': '', %s}"
                    .formatted(i + 1, boxes[i][0], boxes[i][1], boxes[i][2], boxes[i][3], KindsTest.FIGURE));
        return DashboardDocument.parse(("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}, "
                        + "'p2': {'title': '', 'order': 2}}, 'filters': {}, 'links': {}, 'visuals': {"
                        + String.join(", ", visuals) + "}}")
                .replace('\'', '"'));
    }

    private static DashboardDocument.Edit edit(DashboardDocument document, List<Map<String, Object>> ops) {
        return document.edit(DocumentJson.write(ops));
    }

    private static DashboardDocument done(DashboardDocument document, Act act, String... ids) {
        return edit(document, Arrangement.of(document.dashboard(), List.of(ids), act, 0, 0, () -> "1"))
                .after();
    }

    private static Map<String, List<Integer>> places(DashboardDocument document) {
        return document.dashboard().visuals().entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey,
                        v -> List.of(
                                v.getValue().at().x(),
                                v.getValue().at().y(),
                                v.getValue().at().w(),
                                v.getValue().at().h())));
    }

    private static final DashboardDocument STEPS =
            page(new int[] {0, 0, 4, 3}, new int[] {6, 4, 6, 2}, new int[] {14, 9, 3, 5}, new int[] {0, 9, 4, 2});

    @Test
    void lineUpTheirEdges() {
        assertThat(places(done(STEPS, Act.LEFT, "v2", "v3")))
                .containsEntry("v2", List.of(6, 4, 6, 2))
                .containsEntry("v3", List.of(6, 9, 3, 5))
                .containsEntry("v1", List.of(0, 0, 4, 3));
        assertThat(places(done(STEPS, Act.RIGHT, "v1", "v2"))).containsEntry("v1", List.of(8, 0, 4, 3));
        assertThat(places(done(STEPS, Act.TOP, "v1", "v3"))).containsEntry("v3", List.of(14, 0, 3, 5));
        assertThat(places(done(STEPS, Act.BOTTOM, "v2", "v3"))).containsEntry("v2", List.of(6, 12, 6, 2));
    }

    @Test
    void areSpreadWithTheSameGapBetweenEachAndTheNext() {
        assertThat(places(done(STEPS, Act.ACROSS, "v3", "v1", "v2")))
                .containsEntry("v1", List.of(0, 0, 4, 3))
                .containsEntry("v2", List.of(6, 4, 6, 2))
                .containsEntry("v3", List.of(14, 9, 3, 5));
        assertThat(places(done(STEPS, Act.DOWN, "v1", "v2", "v3"))).containsEntry("v2", List.of(6, 5, 6, 2));
        assertThatThrownBy(() -> done(STEPS, Act.ACROSS, "v1", "v2"))
                .isInstanceOf(MisfitException.class)
                .hasMessageContaining("three or more");
        DashboardDocument wide = page(new int[] {0, 0, 12, 2}, new int[] {0, 3, 12, 2}, new int[] {0, 6, 12, 2});
        assertThatThrownBy(() -> done(wide, Act.ACROSS, "v1", "v2", "v3")).hasMessageContaining("36 columns wide");
    }

    @Test
    void areAsLargeAsTheOneChosenFirst() {
        assertThat(places(done(STEPS, Act.SAME_SIZE, "v2", "v3", "v1")))
                .containsEntry("v3", List.of(14, 9, 6, 2))
                .containsEntry("v1", List.of(0, 0, 6, 2));
        DashboardDocument edge = page(new int[] {0, 0, 10, 2}, new int[] {20, 4, 4, 4});
        assertThat(places(done(edge, Act.SAME_SIZE, "v1", "v2")))
                .as("not over the edge of the sheet")
                .containsEntry("v2", List.of(14, 4, 10, 2));
    }

    @Test
    void makeRoomForEachOther() {
        DashboardDocument column = page(new int[] {0, 0, 8, 3}, new int[] {0, 3, 8, 3}, new int[] {0, 6, 8, 3});
        assertThat(places(done(column, Act.TOP, "v1", "v3")))
                .as("the second chosen stands below the first, and the one between below both")
                .containsEntry("v1", List.of(0, 0, 8, 3))
                .containsEntry("v3", List.of(0, 3, 8, 3))
                .containsEntry("v2", List.of(0, 6, 8, 3));
    }

    @Test
    void moveAsOneUpToTheEdges() {
        var ops = Arrangement.of(STEPS.dashboard(), List.of("v2", "v3"), Act.MOVE, 40, -40, () -> "1");
        DashboardDocument.Edit edit = edit(STEPS, ops);
        assertThat(places(edit.after()))
                .containsEntry("v2", List.of(13, 0, 6, 2))
                .containsEntry("v3", List.of(21, 5, 3, 5));
        assertThat(edit.words()).isEqualTo("the places of 2 visuals");
        assertThat(places(edit.after().edit(edit.inverse()).after())).isEqualTo(places(STEPS));
    }

    @Test
    void neverCoverAnotherWhateverIsDone() {
        Random random = new Random(11);
        for (int round = 0; round < 400; round++) {
            int count = 2 + random.nextInt(60);
            int[][] boxes = new int[count][];
            Map<String, Box> settled = new LinkedHashMap<>();
            for (int i = 0; i < count; i++) {
                int w = 1 + random.nextInt(12);
                int x = random.nextInt(25 - w);
                boxes[i] = new int[] {x, random.nextInt(40), w, 1 + random.nextInt(6)};
            }
            // A page on which nothing is covered to begin with.
            DashboardDocument any = page(boxes);
            settled.putAll(Arrangement.settled(any.dashboard(), "p1", Map.of()));
            int[][] free = settled.entrySet().stream()
                    .sorted(Map.Entry.comparingByKey())
                    .map(e -> new int[] {
                        e.getValue().x(),
                        e.getValue().y(),
                        e.getValue().w(),
                        e.getValue().h()
                    })
                    .toArray(int[][]::new);
            DashboardDocument document = page(free);
            List<String> ids = new ArrayList<>(document.dashboard().visuals().keySet());
            Collections.shuffle(ids, random);
            List<String> chosen = ids.subList(0, 1 + random.nextInt(Math.min(5, count)));
            Act act = Act.values()[random.nextInt(Act.MOVE.ordinal() + 1)];
            DashboardDocument after;
            try {
                after = edit(
                                document,
                                Arrangement.of(
                                        document.dashboard(),
                                        chosen,
                                        act,
                                        random.nextInt(31) - 15,
                                        random.nextInt(31) - 15,
                                        () -> "1"))
                        .after();
            } catch (MisfitException said) {
                continue;
            }
            // Those that share a place count once.
            Set<String> seen = new HashSet<>();
            List<Box> at = new ArrayList<>();
            after.dashboard().visuals().forEach((id, visual) -> {
                if (seen.add(id)) at.add(visual.at());
                seen.addAll(after.dashboard().inOnePlace(id));
                assertThat(after.dashboard().inOnePlace(id))
                        .allSatisfy(other -> assertThat(
                                        after.dashboard().visuals().get(other).at())
                                .isEqualTo(visual.at()));
            });
            for (int i = 0; i < at.size(); i++) {
                assertThat(at.get(i).x() + at.get(i).w()).isLessThanOrEqualTo(Dashboard.COLUMNS);
                for (int j = 0; j < i; j++)
                    assertThat(Proposals.overlap(at.get(i), at.get(j)))
                            .as("%s of %s in round %d", act, chosen, round)
                            .isFalse();
            }
        }
    }

    @Test
    void belongTogetherAsAGroup() {
        DashboardDocument grouped = done(STEPS, Act.GROUP, "v1", "v2");
        assertThat(grouped.dashboard().together("v2")).containsExactly("v1", "v2");
        // What is done with one is done with both.
        var moved = edit(grouped, Arrangement.of(grouped.dashboard(), List.of("v2"), Act.MOVE, 2, 0, () -> "2"))
                .after();
        assertThat(places(moved)).containsEntry("v1", List.of(2, 0, 4, 3)).containsEntry("v2", List.of(8, 4, 6, 2));
        DashboardDocument hidden = done(grouped, Act.HIDE, "v1");
        assertThat(hidden.dashboard().finish("v2").isHidden()).isTrue();
        assertThat(done(hidden, Act.SHOW, "v2").dashboard().finish("v1").isHidden())
                .isFalse();
        // A visual is of one group.
        assertThat(done(grouped, Act.GROUP, "v2", "v3").dashboard().groups()).hasSize(1);
        assertThat(done(grouped, Act.UNGROUP, "v1").dashboard().groups()).isEmpty();
        assertThatThrownBy(() -> done(STEPS, Act.GROUP, "v1")).hasMessageContaining("two visuals or more");
        assertThatThrownBy(() -> done(STEPS, Act.LEFT, "v1", "v9")).hasMessageContaining("taken away");
    }

    @Test
    void shareAPlaceOfWhichOneIsShownAtATime() {
        DashboardDocument swapped = done(STEPS, Act.SWAP, "v1", "v2");
        assertThat(places(swapped).get("v2"))
                .isEqualTo(places(swapped).get("v1"))
                .isEqualTo(places(STEPS).get("v1"));
        assertThat(swapped.dashboard().swaps()).containsEntry("g1", List.of("v1", "v2"));
        DashboardDocument moved = edit(
                        swapped, Arrangement.of(swapped.dashboard(), List.of("v2"), Act.MOVE, 1, 0, () -> "2"))
                .after();
        assertThat(places(moved).get("v2")).isEqualTo(places(moved).get("v1"));
        DashboardDocument apart = done(swapped, Act.UNGROUP, "v1");
        assertThat(apart.dashboard().groups()).isEmpty();
        assertThat(Proposals.overlap(
                        apart.dashboard().visuals().get("v1").at(),
                        apart.dashboard().visuals().get("v2").at()))
                .isFalse();
        StateReader.Read read = StateReader.read("s.g1=1", swapped.dashboard(), id -> Datasets.Found.GONE, Kinds.ALL);
        assertThat(read.state().text()).isEqualTo("s.g1=1");
        assertThat(StateReader.read("s.g1=7", swapped.dashboard(), id -> Datasets.Found.GONE, Kinds.ALL)
                        .misfits())
                .hasSize(1);
    }

    @Test
    void areCopiedAndTakenAwayTogether() {
        DashboardDocument grouped = done(done(STEPS, Act.GROUP, "v1", "v2"), Act.HIDE, "v1");
        int[] next = {0};
        Remaking.Copy copy = Remaking.copies(grouped.dashboard(), List.of("v1", "v2"), () -> "c" + next[0]++);
        DashboardDocument both = edit(grouped, copy.ops()).after();
        assertThat(copy.id()).isEqualTo("vc0,vc1");
        Map<String, List<Integer>> places = places(both);
        assertThat(places.get("vc1").get(0) - places.get("vc0").get(0)).isEqualTo(6);
        assertThat(places.get("vc1").get(1) - places.get("vc0").get(1)).isEqualTo(4);
        assertThat(both.dashboard().together("vc0")).containsExactly("vc0", "vc1");
        assertThat(both.dashboard().finish("vc1").isHidden()).isTrue();

        Removal.Removed removed = Removal.of(both.dashboard(), List.of("v1", "vc0", "vc1"));
        DashboardDocument.Edit left = both.edit(removed.patch());
        assertThat(left.after().dashboard().visuals()).containsOnlyKeys("v2", "v3", "v4");
        assertThat(left.after().dashboard().groups())
                .as("one alone is no group")
                .isEmpty();
        assertThat(left.after().dashboard().finishes()).containsOnlyKeys("v2");
        assertThat(left.words()).isEqualTo("taking away 3 visuals");
    }

    @Test
    void standOnPhonesInReadingOrderUnlessSaidOtherwise() {
        assertThat(phone(STEPS.dashboard())).containsExactly("v1", "v2", "v4", "v3");
        DashboardDocument own = STEPS.edit(
                        "[{'op': 'add', 'path': '/pages/p1/phone', 'value': [{'visual': 'v3', 'rows': 8}, {'visual': 'v9'}, {'visual': 'v1', 'left': true}]}]"
                                .replace('\'', '"'))
                .after();
        assertThat(phone(own.dashboard()))
                .as("what has gone is passed over, what is new comes last")
                .containsExactly("v3", "v1", "v2", "v4");
        DashboardDocument without =
                own.edit(Removal.of(own.dashboard(), "v3").patch()).after();
        assertThat(phone(without.dashboard())).containsExactly("v1", "v2", "v4");
        assertThat(without.dashboard().pages().get("p1").phone())
                .extracting(Dashboard.Spot::visual)
                .doesNotContain("v3");
        int[] next = {0};
        Remaking.Copy again = Remaking.copyOfPage(own.dashboard(), "p1", () -> "n" + next[0]++);
        Dashboard both = edit(own, again.ops()).after().dashboard();
        assertThat(both.onPhone(again.id()).get(0).rows())
                .as("the copy's own visuals stand as the first page's do")
                .isEqualTo(8);
        assertThat(both.onPhone(again.id()))
                .hasSize(4)
                .noneMatch(spot -> spot.visual().equals("v3"));
    }

    private static List<String> phone(Dashboard dashboard) {
        return dashboard.onPhone("p1").stream().map(Dashboard.Spot::visual).toList();
    }
}
