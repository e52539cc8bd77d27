package sarnik.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.Shape;
import java.awt.geom.Area;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.w3c.dom.Document;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.MapFixture;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Sources;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.format.BoundaryFiles;
import sarnik.geo.BoundarySet;
import sarnik.geo.IndexedSet;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.visual.Sight;
import sarnik.visual.map.Layer;
import sarnik.visual.map.MapAnswers;
import sarnik.visual.map.MapDrawing;
import sarnik.visual.map.MapVisual;

class MapPictureTest {

    private static final Map<String, BoundarySet> SETS = new HashMap<>();
    private static final Sight SPAIN = new Sight(5.5, -10, 35, 5, 44.5);

    static {
        for (BoundaryFiles.Shipped shipped :
                List.of(BoundaryFiles.Shipped.COUNTRIES, BoundaryFiles.Shipped.PROVINCES)) {
            BoundarySet set = BoundaryFiles.shipped(shipped);
            SETS.put(set.name(), set);
        }
    }

    private static final IndexedSet PROVINCES = new IndexedSet(SETS.get("Provinces of Spain"));
    private static final Boundaries BOUNDARIES =
            name -> name.equals("Provinces of Spain") ? Optional.of(PROVINCES) : Optional.empty();

    private static Column text(String... values) {
        List<String> words = java.util.Arrays.stream(values).distinct().toList();
        int[] codes = java.util.Arrays.stream(values).mapToInt(words::indexOf).toArray();
        return new CodedColumn(ColumnType.TEXT, Codes.of(codes, codes.length, words.size()), words);
    }

    private static final LoadedDataset SALES = sales();

    private static LoadedDataset sales() {
        Table rows = new Table(new java.util.LinkedHashMap<>(Map.of(
                "town",
                text("Soria, Spain", "Zamora, Spain", "<b>Burgos</b>"),
                "from",
                text("Madrid, Spain", "Madrid, Spain", "Madrid, Spain"),
                "litres",
                new DecimalColumn(new double[] {10, 100, 5}),
                "way",
                text("LINESTRING (-4 40, -2 40)", "POINT (-5.75 41.5)", "LINESTRING (-3.7 42.3, -3.7 43)"))));
        Placing.FromTo by = new Placing.FromTo(new Placing.ByWords("from"), new Placing.ByWords("town"));
        PlacedTable placed = new TablePlacer(Gazetteer.shipped()).by(rows, by);
        return new LoadedDataset(
                1,
                "Sales",
                placed.table(),
                by,
                placed.places(),
                About.NONE,
                Map.of(),
                List.of(),
                List.of(),
                BOUNDARIES);
    }

    private static MapPicture picture(String title, String layer, boolean night) {
        Dashboard dashboard =
                DashboardDocument.parse("""
                {"schema": 1, "title": "x", "pages": {"p1": {"title": "", "order": 1}}, "filters": {}, "links": {},
                 "visuals": {"v1": {"type": "map", "page": "p1", "at": {"x": 0, "y": 0, "w": 12, "h": 10}, "title": "%s", "layers": {"l1": {"order": 1, "dataset": 1, "opacity": 1, %s}}}}}""".formatted(title, layer)).dashboard();
        PageDrawer drawer = new PageDrawer(
                dashboard,
                ReaderState.NOTHING,
                new Sources(new Datasets() {
                    @Override
                    public Found find(long id) {
                        return new Found.Ready(SALES);
                    }

                    @Override
                    public Boundaries boundaries() {
                        return MapFixture.BOUNDARIES;
                    }
                }),
                new Answerer(new InMemoryEngine()),
                Map.of());
        MapDrawing map = (MapDrawing) drawer.draw("v1");
        return new MapPicture(
                map,
                drawer.sheets(),
                of -> (of.set() == null
                                ? new MapAnswers(
                                                (MapVisual) dashboard.visuals().get("v1"),
                                                drawer.scene("v1"),
                                                new InMemoryEngine())
                                        .ownShapes("l1")
                                        .set()
                                : SETS.get(of.set()))
                        .areas(),
                name -> Optional.ofNullable(SOURCES.get(name)),
                new MapPicture.Frame(
                        SPAIN,
                        new Plane.Mercator(),
                        600,
                        500,
                        night,
                        new Ground(Ground.Mood.PAPER, 2, GroundPainterTest.PACKS, null),
                        "The ground’s credit"));
    }

    private static final String SIZE =
            "\"size\": {\"measure\": {\"summary\": \"SUM\", \"column\": \"litres\"}, \"rule\": \"AREA\", "
                    + "\"radius\": 20}";
    private static final String AREAS =
            "\"kind\": \"AREAS\", \"set\": \"Provinces of Spain\", \"colour\": {\"measure\": {\"summary\": "
                    + "\"SUM\", \"column\": \"litres\"}, \"classes\": 2, \"palette\": \"#ff0000 #0000ff\"}";

    /** A source whose every tile is red. */
    private static final Map<String, Ground.Tiles> SOURCES = Map.of("Red", new Ground.Tiles() {
        @Override
        public Optional<byte[]> tile(int z, int x, int y) {
            BufferedImage red = new BufferedImage(256, 256, BufferedImage.TYPE_INT_RGB);
            for (int at = 0; at < 256 * 256; at++) red.setRGB(at % 256, at / 256, 0xff0000);
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            try {
                ImageIO.write(red, "png", png);
            } catch (IOException unwritten) {
                throw new UncheckedIOException(unwritten);
            }
            return Optional.of(png.toByteArray());
        }

        @Override
        public int nearest() {
            return 5;
        }
    });

    @Test
    void notesAreWrittenInLinesBesideTheirPlace() throws Exception {
        String soria = SALES.places().values().stream()
                .filter(p -> p.name().equals("Soria"))
                .findFirst()
                .orElseThrow()
                .id();
        String svg = picture(
                        "Noted",
                        "\"hidden\": false}}, \"pinned\": [{\"at\": \"%s\", \"text\": \"%s\"}], \"views\": {\"w1\": {\"name\": \"x\", \"order\": 1, \"extent\": {\"west\": 0, \"south\": 0, \"east\": 1, \"north\": 1}"
                                .formatted(soria, "The kiosk was closed for the whole of May"),
                        false)
                .svg();
        assertThat(svg).contains(">The kiosk was closed for<").contains(">the whole of May<");
    }

    @Test
    void outlinesAreLinesWithNamesAndPicturesLieOverTheGroundAsFaintAsTheyWereSet() throws Exception {
        String outlines = "\"kind\": \"OUTLINES\", \"set\": \"Provinces of Spain\", \"border\": 1.5, \"label\": {}";
        String svg = picture("Borders", outlines, false).svg();
        assertThat(svg).contains("Soria").contains("stroke-width=\"1.5\"").contains("Instituto Geográfico Nacional");
        assertThat(picture("Borders", outlines.replace(", \"label\": {}", ""), false)
                        .svg())
                .doesNotContain(">Soria<");
        String red = "\"kind\": \"PICTURES\", \"set\": \"Red\"";
        BufferedImage full =
                ImageIO.read(new ByteArrayInputStream(picture("Red", red, false).png(1)));
        assertThat(full.getRGB(300, 250) & 0xffffff).isEqualTo(0xff0000);
        BufferedImage gone = ImageIO.read(new ByteArrayInputStream(
                picture("Red", red.replace("Red", "Gone"), false).png(1)));
        assertThat(gone.getRGB(300, 250) & 0xffffff).isNotEqualTo(0xff0000);
    }

    private static Document xml(String svg) throws Exception {
        return DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(new InputSource(new StringReader(svg)));
    }

    @ParameterizedTest
    @EnumSource(
            value = Layer.Kind.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"OUTLINES", "PICTURES"})
    void everyKindOfDataIsDrawnAsSvgThatIsWellFormed(Layer.Kind kind) throws Exception {
        String layer = kind == Layer.Kind.AREAS
                ? AREAS
                : kind == Layer.Kind.SHAPES
                        ? AREAS.replace("AREAS", "SHAPES")
                        : "\"kind\": \"%s\", %s, \"path\": {\"who\": \"from\", \"by\": \"litres\"}"
                                .formatted(kind, SIZE);
        Document svg = xml(picture("Map", layer, false).svg());
        assertThat(svg.getDocumentElement().getAttribute("width")).isEqualTo(String.valueOf(600 + 200));
        int land = xml(picture("Map", "\"hidden\": true", false).svg())
                .getElementsByTagName("path")
                .getLength();
        assertThat(svg.getElementsByTagName("path").getLength())
                .as("more than the land")
                .isGreaterThan(land);
    }

    @Test
    void wordsOfTheDataAreTextAndNeverMarkup() throws Exception {
        String svg = picture("A <script>alert(1)</script> & more", "\"label\": {\"column\": \"town\"}", false)
                .svg();
        assertThat(svg).doesNotContain("<script").contains("&lt;script&gt;");
        assertThat(xml(svg).getElementsByTagName("title").item(0).getTextContent())
                .isEqualTo("A <script>alert(1)</script> & more");
    }

    private static BufferedImage pixels(byte[] png) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(png));
    }

    /** The pixel of a place, by the formula of Web Mercator worked out for this frame. */
    private static Color at(BufferedImage image, double lon, double lat, int ratio) {
        double width = 600;
        double height = 500;
        double x0 = -10 / 360.0;
        double x1 = 5 / 360.0;
        double y0 = -Math.log(Math.tan(Math.PI / 4 + Math.toRadians(44.5) / 2)) / (2 * Math.PI);
        double y1 = -Math.log(Math.tan(Math.PI / 4 + Math.toRadians(35) / 2)) / (2 * Math.PI);
        double scale = Math.min(width / (x1 - x0), height / (y1 - y0));
        double x = width / 2 + (lon / 360 - (x0 + x1) / 2) * scale;
        double y = 30
                + height / 2
                + (-Math.log(Math.tan(Math.PI / 4 + Math.toRadians(lat) / 2)) / (2 * Math.PI) - (y0 + y1) / 2) * scale;
        return new Color(image.getRGB((int) (x * ratio), (int) (y * ratio)));
    }

    @Test
    void linesThatRowsBroughtAlongLieWhereTheyLay() throws IOException {
        BufferedImage image = pixels(
                picture("Map", "\"kind\": \"SHAPES\", \"border\": 1, \"colour\": {\"palette\": \"#ff0000\"}", false)
                        .png(1));
        assertThat(at(image, -3, 40, 1)).isEqualTo(new Color(255, 0, 0));
        assertThat(at(image, -5.75, 41.5, 1)).as("a point is a dot").isEqualTo(new Color(255, 0, 0));
        assertThat(at(image, -3, 40.5, 1)).isNotEqualTo(new Color(255, 0, 0));
    }

    @ParameterizedTest
    @CsvSource({"1", "2"})
    void areasWearTheColoursOfTheirClassesWhereTheyLie(int ratio) throws IOException {
        BufferedImage image = pixels(picture("Map", AREAS, false).png(ratio));
        assertThat(image.getWidth()).isEqualTo(800 * ratio);
        assertThat(at(image, -2.6, 41.6, ratio)).as("Soria has the lower class").isEqualTo(Color.RED);
        assertThat(at(image, -6.0, 41.7, ratio)).as("Zamora the higher").isEqualTo(Color.BLUE);
        assertThat(at(image, -4.9, 39.8, ratio)).as("Toledo has no row").isNotIn(Color.RED, Color.BLUE);
    }

    @Test
    void whatLiesBeyondTheEndsOfItsScaleIsMarkedOnTheMapAndInTheKey() throws Exception {
        String ends = AREAS.replace("\"classes\": 2", "\"classes\": 2, \"low\": 20, \"high\": 90");
        String svg = picture("Map", ends, false).svg();
        assertThat(svg.contains("2 below 20") && svg.contains("1 above 90")).isTrue();
        int marked = xml(svg).getElementsByTagName("path").getLength();
        int unmarked = xml(picture("Map", AREAS, false).svg())
                .getElementsByTagName("path")
                .getLength();
        // A mark and its rim on each of the three areas, and a mark on each of two lines of the key.
        assertThat(marked - unmarked).isEqualTo(3 * 2 + 2);
    }

    /**
     * In sight are 15 degrees of longitude on 600 pixels; at the middle, 40 degrees north, a pixel is about 2.13 km.
     */
    @Test
    void aBarOfARoundLengthShowsTheScale() throws Exception {
        NodeList texts = xml(picture("Map", AREAS, false).svg()).getElementsByTagName("text");
        assertThat(IntStream.range(0, texts.getLength())
                        .mapToObj(i -> texts.item(i).getTextContent()))
                .contains("200 km");
    }

    @Test
    void theKeySaysWhatShapesStandForOnceWhereColoursSayTheSame() {
        String byTown = "\"symbol\": {\"category\": \"town\"}";
        for (String layer :
                List.of(byTown, byTown + ", \"colour\": {\"category\": \"town\", \"palette\": \"flags\"}")) {
            String svg = picture("Map", layer, false).svg();
            assertThat(svg.split(">Zamora, Spain<", -1)).as(layer).hasSize(2);
        }
    }

    @Test
    void theGroundIsCreditedBesideTheData() {
        assertThat(picture("Map", AREAS, false).svg().contains("The ground’s credit"))
                .isTrue();
    }

    @Test
    void nightHasADarkGround() throws IOException {
        Color day = at(pixels(picture("Map", AREAS, false).png(1)), -7.3, 39.5, 1);
        Color night = at(pixels(picture("Map", AREAS, true).png(1)), -7.3, 39.5, 1);
        assertThat(night.getRed()).isLessThan(80);
        assertThat(day.getRed()).isGreaterThan(200);
    }

    @ParameterizedTest
    @EnumSource(Layer.Shape.class)
    void marksHoldAboutTheAreaOfACircleOfTheirRadius(Layer.Shape shape) {
        Shape mark = Marks.of(shape, 50, 50, 20);
        Area area = new Area(mark);
        assertThat(area.getBounds2D().contains(50, 40, 1, 1)).isTrue();
        // Counted in half pixels.
        int inside = 0;
        for (int y = 0; y < 200; y++)
            for (int x = 0; x < 200; x++) if (mark.contains(x / 2.0 + 0.25, y / 2.0 + 0.25)) inside++;
        double circle = Math.PI * 20 * 20;
        // A ring is hollow and a drop has its tip besides.
        assertThat(inside / 4.0 / circle)
                .as(shape.words())
                .isBetween(
                        shape == Layer.Shape.CROSS || shape == Layer.Shape.RING ? 0.6 : 0.8,
                        shape == Layer.Shape.DROP ? 1.35 : 1.15);
    }
}
