package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import sarnik.app.MemoryBudget;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.ground.Grounds;
import sarnik.app.ground.PictureSource;
import sarnik.app.ground.Pictures;
import sarnik.app.image.Images;
import sarnik.app.key.SharedKeys;
import sarnik.app.web.RefusedException;
import sarnik.app.work.AnswerQueue;
import sarnik.brief.Brief;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.dashboard.AnswerStore;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Arrangement;
import sarnik.dashboard.BriefWriter;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.FirstPage;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.Moving;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Proposals;
import sarnik.dashboard.Remaking;
import sarnik.dashboard.Sources;
import sarnik.dashboard.StartingSheet;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.PlaceSheet;
import sarnik.format.TableFormat;
import sarnik.geo.ShapeBand;
import sarnik.language.Language;
import sarnik.picture.MapPicture;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.reading.OnceDatasets;
import sarnik.reading.ReadPage;
import sarnik.sentence.SentenceReader;
import sarnik.sql.Engines;
import sarnik.state.ReaderState;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.visual.Drawing;
import sarnik.visual.Question;
import sarnik.visual.Sight;
import sarnik.visual.Visual;
import sarnik.visual.map.MapAnswers;
import sarnik.visual.map.MapDrawing;
import sarnik.visual.map.MapVisual;
import sarnik.visual.map.PlaceTeller;

/** Answers what a dashboard shows, says and might show. */
@Service
class FrameService {

    /** Steps in which proposals are told apart by how much they tell. */
    private static final int RANKS = 5;

    private static final long MOST_ENDINGS = 60_466_176;

    private static final int LARGEST_PICTURE = 4000;
    private static final int MOST_PIXELS = 12_000_000;

    /** A picture in work: its pixels, the ground beneath, and the file that is made of it. */
    private static final int BYTES_A_PIXEL = 16;

    /** Cells of answers that are kept: about 100 MB. */
    private static final long KEPT_CELLS = 8_000_000;

    private static final int LONGEST_STATE = 20_000;
    private static final int MOST_ASKED = 500;

    /** Rows that are handed out at once. */
    private static final int MOST_ROWS = 200_000;

    private final DatasetService datasets;
    private final BoundarySets boundaries;
    private final SharedKeys keys;
    private final Pictures pictures;
    private final Grounds grounds;
    private final MemoryBudget memory;
    private final Images images;
    private final QueryEngine engine = new Engines();
    private final Answerer answerer = new Answerer(engine, new AnswerStore(KEPT_CELLS));

    FrameService(
            DatasetService datasets,
            BoundarySets boundaries,
            SharedKeys keys,
            Pictures pictures,
            Grounds grounds,
            MemoryBudget memory,
            Images images) {
        this.memory = memory;
        this.images = images;
        this.datasets = datasets;
        this.boundaries = boundaries;
        this.keys = keys;
        this.pictures = pictures;
        this.grounds = grounds;
    }

    /**
     * What is asked for.
     *
     * @param state a reader state's text form
     * @param ids the visuals wanted; null for all
     * @param sights what is in sight on maps, by visual; null for whole maps
     * @param known tags of the sheets of places that are known already; null for none
     * @param file whether it is asked for a file, of which programs read the numbers; null for no
     */
    record Asked(String state, List<String> ids, Map<String, Sight> sights, Set<String> known, Boolean file) {

        boolean isForFile() {
            return Boolean.TRUE.equals(file);
        }
    }

    /**
     * Checks that a question is of a size that is answered.
     *
     * @throws RefusedException when it is not
     */
    void check(Asked asked) {
        if (asked.state() != null && asked.state().length() > LONGEST_STATE)
            throw new RefusedException("A state has at most %,d characters.".formatted(LONGEST_STATE));
        for (Collection<?> some : Arrays.asList(
                asked.ids(),
                asked.known(),
                asked.sights() == null ? null : asked.sights().keySet())) {
            if (some == null) continue;
            if (some.size() > MOST_ASKED)
                throw new RefusedException("At most %,d visuals are asked for at once.".formatted(MOST_ASKED));
            if (some.stream().anyMatch(Objects::isNull))
                throw new RefusedException("A list of names holds one that is null.");
        }
        if (asked.sights() != null && asked.sights().values().stream().anyMatch(Objects::isNull))
            throw new RefusedException("What is in sight of a map is null.");
    }

    /**
     * What the visuals show; of rows that are still on their way that they are, without waiting for them any longer.
     *
     * @param ready what {@link Reading#prepared} gave
     */
    ReadPage.Frames frames(Reading reading, CompletableFuture<Void> ready, Asked asked, AnswerQueue.Ticket ticket) {
        SeenDatasets.Standing standing = reading.standing(ready);
        Language spoken = Language.spoken();
        ReadPage.Frames frames = Language.in(
                asked.isForFile() ? spoken.forFiles() : spoken,
                () -> reading.page(standing.datasets(), answerer)
                        .frames(asked.state(), asked.ids(), asked.sights(), asked.known(), ticket::check));
        return standing.isWhole() ? frames : frames.whileComing();
    }

    private ReadPage page(Reading reading) {
        return reading.page(reading.datasets(), answerer);
    }

    private static Sources sources(Reading reading, Datasets once) {
        return new Sources(once, reading.keys(), LocalDate.now());
    }

    /**
     * A place on a layer of a map.
     *
     * @param metres within which others are near; null where it is not about that
     * @param count how many others are alike; null where it is not about that
     */
    record AskedPlace(String state, String visual, String layer, String place, Double metres, Integer count) {}

    /**
     * A source of pictures as the browser needs it.
     *
     * @param credit what its licence asks to be said
     * @param nearest the nearest zoom that there are tiles of
     * @param shapes whether its tiles are drawn here, in the looks of the day or the night
     */
    record GroundSource(String credit, int nearest, boolean shapes) {}

    /** The sources of pictures by name. */
    Map<String, GroundSource> groundSources() {
        Map<String, GroundSource> all = new LinkedHashMap<>();
        pictures.all()
                .forEach(source -> all.put(
                        source.getName(),
                        new GroundSource(source.getCredit(), source.getNearest(), source.isShapes())));
        return all;
    }

    /** What is told of a place. */
    PlaceTeller.Told tell(Reading reading, AskedPlace asked) {
        return fitting(() -> page(reading).told(asked.state(), asked.visual(), asked.layer(), asked.place()));
    }

    /** The places near one, or most like it. */
    List<PlaceTeller.Found> others(Reading reading, AskedPlace asked) {
        return fitting(() -> page(reading)
                .others(asked.state(), asked.visual(), asked.layer(), asked.place(), asked.metres(), asked.count()));
    }

    /**
     * A picture of a map.
     *
     * @param form {@code svg} or {@code png}
     * @param ratio 1 or 2, for PNG
     * @param ground the ground that the reader has chosen; null for the map's own
     */
    record AskedPicture(
            String state,
            String visual,
            Sight sight,
            int width,
            int height,
            Boolean night,
            String form,
            Integer ratio,
            MapVisual.Ground ground) {

        /** Pixels of the picture for one that was asked for, in each direction. */
        int times() {
            return "png".equals(form) && ratio != null && ratio == 2 ? 2 : 1;
        }
    }

    /** A picture and its media type. */
    record Picture(String type, byte[] bytes) {}

    /**
     * Checks that a picture is of a size that is made.
     *
     * @throws RefusedException when it is not
     */
    void check(AskedPicture asked) {
        int ratio = asked.times();
        if (asked.visual() == null) throw new RefusedException("Say which map is wanted.");
        if ((long) asked.width() * asked.height() * ratio * ratio > MOST_PIXELS)
            throw new RefusedException(
                    "A picture has at most %d million pixels. Make it smaller.".formatted(MOST_PIXELS / 1_000_000));
        if (asked.sight() == null
                || asked.width() < 50
                || asked.height() < 50
                || asked.width() > LARGEST_PICTURE
                || asked.height() > LARGEST_PICTURE) {
            throw new RefusedException("A picture is 50 to %d pixels wide and high, and shows what is in sight."
                    .formatted(LARGEST_PICTURE));
        }
    }

    /** A picture of a map, made here of the same figures, classes and colours as the browser draws. */
    Picture picture(Reading reading, AskedPicture asked) {
        try (MemoryBudget.Share share = memory.reserve(
                (long) asked.width() * asked.height() * asked.times() * asked.times() * BYTES_A_PIXEL, "The picture")) {
            return drawn(reading, asked);
        }
    }

    private Picture drawn(Reading reading, AskedPicture asked) {
        Dashboard dashboard = reading.dashboard();
        ReadPage page = page(reading);
        PageDrawer drawer = page.drawer(page.read(asked.state()), Map.of(asked.visual(), asked.sight()));
        if (!(drawer.draw(asked.visual()) instanceof MapDrawing map))
            throw new RefusedException(phrase("Only a map can be taken along as a picture."));
        MapVisual visual = (MapVisual) dashboard.visuals().get(asked.visual());
        MapAnswers answers = new MapAnswers(visual, drawer.scene(asked.visual()), engine);
        MapVisual.Ground ground = asked.ground() != null ? asked.ground() : visual.ground();
        MapPicture picture = new MapPicture(
                map,
                drawer.sheets(),
                layer -> (layer.set() == null
                                ? answers.ownShapes(layer.head().id()).set()
                                : boundaries.needed(layer.set()))
                        .areas(),
                grounds::tilesOf,
                new MapPicture.Frame(
                        asked.sight(),
                        Grounds.planeOf(visual),
                        asked.width(),
                        asked.height(),
                        Boolean.TRUE.equals(asked.night()),
                        grounds.of(ground),
                        grounds.creditOf(ground)));
        if ("png".equals(asked.form())) return new Picture("image/png", picture.png(asked.times()));
        return new Picture("image/svg+xml", picture.svg().getBytes(StandardCharsets.UTF_8));
    }

    /** The shapes that the rows of a map's layer brought along, simplified for a band of zooms. */
    BoundarySets.Shapes ownShapes(Reading reading, String visual, String layer, ShapeBand band) {
        return fitting(() -> boundaries.shapes(page(reading).onMap("", visual).ownShapes(layer), band));
    }

    /**
     * Rows of a visual, as narrowed.
     *
     * @param layer of a map; null for other visuals
     * @param sight what is in sight of a map; null for other visuals
     * @param spreadsheet whether cells that a spreadsheet would take for formulas are marked as text; null for no. Said
     *     by the form as well
     * @param form csv, spreadsheet.csv, xlsx, geojson, gpkg or parquet; null for csv
     */
    record AskedRows(String state, String visual, String layer, Sight sight, Boolean spreadsheet, String form) {

        TableFormat format() {
            if (form == null) return Boolean.TRUE.equals(spreadsheet) ? TableFormat.SPREADSHEET_CSV : TableFormat.CSV;
            return Arrays.stream(TableFormat.values())
                    .filter(format -> format.ending().equals(form))
                    .findFirst()
                    .orElseThrow(() -> new RefusedException(
                            "Rows are given out as csv, spreadsheet.csv, xlsx, geojson, gpkg and parquet."));
        }
    }

    /** Rows with where they lie. */
    private record Given(Table table, IntFunction<double[]> position) {}

    /**
     * The rows of a visual as a file.
     *
     * @param whole whether with all columns, else with those that the visual shows or tells
     */
    byte[] rows(Reading reading, AskedRows asked, boolean whole) {
        TableFormat format = asked.format();
        Given given = fitting(() -> given(reading, asked, whole));
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            format.check(given.table());
            format.write(given.table(), "rows", given.position(), out);
            return out.toByteArray();
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    private Given given(Reading reading, AskedRows asked, boolean whole) {
        Visual visual =
                asked.visual() == null ? null : reading.dashboard().visuals().get(asked.visual());
        if (visual instanceof MapVisual) {
            if (asked.sight() == null) throw new RefusedException("Say what is in sight.");
            MapAnswers.Rows rows =
                    page(reading).onMap(asked.state(), asked.visual()).rowsWithin(asked.layer(), asked.sight(), whole);
            return new Given(rows.table(), rows.position());
        }
        ReadPage page = page(reading);
        PageDrawer.Shown shown = page.drawer(page.read(asked.state()), Map.of()).shown(asked.visual());
        LoadedDataset dataset = shown.dataset();
        String said = DocumentJson.write(visual);
        List<String> names = dataset.table().names().stream()
                .filter(name -> !name.startsWith("@") && (whole || said.contains(DocumentJson.write(name))))
                .toList();
        if (names.isEmpty())
            throw new MisfitException(phrase("This visual names no column of its rows that could be taken along."));
        List<String> wanted = new ArrayList<>(names);
        if (dataset.isPlaced()) wanted.add(PlacedTable.PLACE);
        QueryEngine.Taken taken = engine.taken(dataset.table(), shown.stages(), wanted, MOST_ROWS);
        if (taken.rows() == null)
            throw new MisfitException(phrase(
                    "{0} rows are shown, and at most {1} are handed out at once. Narrow first.",
                    taken.all(), MOST_ROWS));
        return new Given(taken.rows().only(names), positions(dataset, taken.rows()));
    }

    /** Longitude and latitude of rows that were taken along; null where the dataset has no places. */
    private static IntFunction<double[]> positions(LoadedDataset dataset, Table taken) {
        if (!dataset.isPlaced()) return null;
        Column places = taken.column(PlacedTable.PLACE);
        return i -> {
            Place place = dataset.places().get(places.text(i));
            return place == null ? null : new double[] {place.lon(), place.lat()};
        };
    }

    private static <T> T fitting(Supplier<T> answer) {
        try {
            return answer.get();
        } catch (MisfitException | QueryException misfit) {
            throw new RefusedException(misfit.getMessage());
        }
    }

    /** @param dashboards titles of the dashboards that it may lead to, by id */
    Brief brief(Reading reading, String id, Map<Long, String> dashboards) {
        return new BriefWriter(
                        reading.dashboard(), once(reading), choices(reading).with(dashboards))
                .write(id);
    }

    /** What there is to choose from besides columns. */
    private Choices choices(Reading reading) {
        Map<Long, String> placed = new LinkedHashMap<>();
        datasets.all(reading.viewer().person()).stream()
                .filter(DatasetService.Listed::placed)
                .forEach(d -> placed.put(d.id(), d.name()));
        return new Choices(
                engine,
                List.copyOf(boundaries.names()),
                keys.all().stream()
                        .map(key -> new Choices.Named(key.name(), key.words()))
                        .toList(),
                pictures.all().stream().map(PictureSource::getName).toList(),
                placed,
                Map.of(),
                Parts.NONE,
                Map.of());
    }

    /**
     * A proposal with its picture.
     *
     * @param drawing null for filters
     */
    record Drawn(
            String id, String words, List<Map<String, Object>> ops, Drawing drawing, Map<String, PlaceSheet> places) {}

    List<Drawn> proposals(
            Reading reading, String page, Question question, long dataset, Function<Object, String> json) {
        DashboardDocument document = reading.document();
        Datasets once = once(reading);
        // The trade's rules say which kind answers first; among those of a kind, what tells more comes first, and
        // what tells about as much stays in its order.
        Map<Object, List<Drawn>> kinds = new LinkedHashMap<>();
        for (Proposals.Added proposed : onto(document, once, page).answer(question, once.get(dataset))) {
            Drawn drawn = drawn(reading, proposed, once, json);
            kinds.computeIfAbsent(
                            drawn.drawing() == null ? "filter" : drawn.drawing().getClass(), k -> new ArrayList<>())
                    .add(drawn);
        }
        return kinds.values().stream()
                .flatMap(kind -> kind.stream().sorted(Comparator.comparingLong(FrameService::rank)))
                .toList();
    }

    private static long rank(Drawn proposed) {
        return proposed.drawing() == null ? 0 : -Math.round(proposed.drawing().tells() * RANKS);
    }

    private static Proposals onto(DashboardDocument document, Datasets once, String page) {
        return new Proposals(document.dashboard(), once, pageOf(document.dashboard(), page), FrameService::freshEnding);
    }

    private static String pageOf(Dashboard dashboard, String page) {
        return page != null && dashboard.pages().containsKey(page) ? page : dashboard.firstPage();
    }

    StartingSheet.Made startingSheet(Reading reading, String page, StartingSheet sheet, long dataset) {
        Dashboard dashboard = reading.dashboard();
        Datasets once = once(reading);
        return fitting(
                () -> sheet.made(dashboard, pageOf(dashboard, page), once.get(dataset), FrameService::freshEnding));
    }

    private Drawn drawn(Reading reading, Proposals.Added proposed, Datasets once, Function<Object, String> json) {
        Dashboard after =
                reading.document().edit(json.apply(proposed.ops())).after().dashboard();
        Datasets with = proposed.ops().stream()
                        .noneMatch(op -> op.get("path").toString().startsWith("/formulas/"))
                ? once
                : OnceDatasets.of(reading.datasets(), after, engine, LocalDate.now());
        PageDrawer drawer = new PageDrawer(after, ReaderState.NOTHING, sources(reading, with), answerer, Map.of());
        Drawing drawing = after.visuals().containsKey(proposed.id()) ? drawer.draw(proposed.id()) : null;
        return new Drawn(proposed.id(), proposed.words(), proposed.ops(), drawing, drawer.sheets());
    }

    /**
     * A sentence as it was read.
     *
     * @param visual what it says, to be added; null where it names no visual yet
     */
    record Sentence(SentenceReader.Read read, Drawn visual) {}

    Sentence sentence(Reading reading, String page, String text, long dataset, Function<Object, String> json) {
        DashboardDocument document = reading.document();
        Datasets once = once(reading);
        SentenceReader.Read read = new SentenceReader(
                        document.dashboard(), once, choices(reading), fitting(() -> once.get(dataset)))
                .read(text);
        if (read.proposal() == null) return new Sentence(read, null);
        Proposals.Added added = onto(document, once, page).visual(read.proposal());
        return new Sentence(read.spoken(), drawn(reading, added, once, json));
    }

    /**
     * The page that is made of a dataset by itself.
     *
     * @param guesses what was guessed of its numbers, in a sentence; may be empty
     */
    record MadePage(DashboardDocument document, String guesses) {}

    MadePage firstPage(SeenDatasets seen, long id) {
        LoadedDataset dataset = OnceDatasets.of(seen).get(id);
        return new MadePage(FirstPage.of(dataset, FrameService::freshEnding), FirstPage.guesses(dataset));
    }

    /**
     * A picture that a visual of the dashboard shows.
     *
     * @throws RefusedException with 404 when none shows it
     */
    Images.Image image(Dashboard dashboard, String name) {
        boolean shown = dashboard.visuals().values().stream().anyMatch(v -> files(v).contains(name));
        return (shown ? images.find(name) : Optional.<Images.Image>empty())
                .orElseThrow(() -> new RefusedException(
                        HttpStatus.NOT_FOUND, phrase("This dashboard shows no such picture any more.")));
    }

    private static <V extends Visual> Set<String> files(V visual) {
        return Kinds.ALL.of(visual).files(visual);
    }

    /** What else a visual could be. */
    List<Remaking.Other> others(Reading reading, String id) {
        return fitting(() -> Remaking.others(reading.dashboard(), id, once(reading)));
    }

    /** What a dashboard uses of a dataset, and what stands for it in another. */
    List<Moving.Used> moves(Reading reading, long from, long to) {
        Datasets once = OnceDatasets.of(reading.datasets());
        return fitting(() -> Moving.used(reading.document(), once.get(from), once.get(to)));
    }

    /**
     * @param id the visual's id on the other dashboard
     * @param ops JSON Patch operations that put it there
     */
    record Copied(String id, List<Map<String, Object>> ops) {}

    /** The edit that puts a visual on another dashboard. */
    Copied copied(Dashboard from, String id, Dashboard to) {
        String fresh = "v" + freshEnding();
        return fitting(() -> new Copied(fresh, Moving.copied(from, id, to, fresh)));
    }

    /** Another of a visual or of a page, or of several visuals. */
    Remaking.Copy copy(Dashboard dashboard, List<String> ids) {
        return fitting(() -> ids.size() == 1
                ? Remaking.copy(dashboard, ids.get(0), FrameService::freshEnding)
                : Remaking.copies(dashboard, ids, FrameService::freshEnding));
    }

    /** The edit that arranges several visuals. */
    List<Map<String, Object>> arranged(
            Dashboard dashboard, List<String> ids, Arrangement.Act act, int across, int down) {
        return fitting(() -> Arrangement.of(dashboard, ids, act, across, down, FrameService::freshEnding));
    }

    /** A fresh ending for an id: five letters and digits by chance, so that two authors never make the same. */
    private static String freshEnding() {
        return Long.toString(ThreadLocalRandom.current().nextLong(MOST_ENDINGS / 36, MOST_ENDINGS), 36);
    }

    /** With the measures of a dashboard, for what readers set at first. */
    private Datasets once(Reading reading) {
        return OnceDatasets.of(reading.datasets(), reading.dashboard(), engine, LocalDate.now());
    }
}
