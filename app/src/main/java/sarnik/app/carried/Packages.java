package sarnik.app.carried;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Service;
import org.springframework.ui.ExtendedModelMap;
import org.thymeleaf.context.Context;
import org.thymeleaf.spring6.SpringTemplateEngine;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.dashboard.Reading;
import sarnik.app.dashboard.Readings;
import sarnik.app.dashboard.SheetAnswers;
import sarnik.app.dashboard.SheetModel;
import sarnik.app.dashboard.Takes;
import sarnik.app.image.Images;
import sarnik.app.language.Languages;
import sarnik.app.language.Sentences;
import sarnik.app.people.Viewer;
import sarnik.app.web.RefusedException;
import sarnik.carried.CarriedFile;
import sarnik.carried.Carrier;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.Kinds;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.geo.BoundarySet;
import sarnik.geo.ShapeBand;
import sarnik.language.Language;
import sarnik.table.Table;
import sarnik.visual.Visual;
import sarnik.visual.map.MapVisual;
import tools.jackson.databind.json.JsonMapper;

/**
 * Packs what is published of a dashboard as files for any web server, or none: its page, the core that answers it, and
 * the data it needs, as whoever bears a link without a name sees them.
 */
@Service
public class Packages {

    /** Rows, or sums instead of them, that a package holds at most: what a browser answers within a moment. */
    static final int MOST_ROWS = 1_500_000;

    private static final String STATIC = "/static/";
    private static final List<String> GROUND = List.of("world", "iberia", "rivers");
    private static final String RELIEF = "relief";

    /** No rows, pictures or prints: those are made by a server. */
    private static final Takes NOTHING = new Takes(false, false, false);

    private final Readings readings;
    private final SheetAnswers sheets;
    private final SheetModel model;
    private final SpringTemplateEngine templates;
    private final BoundarySets boundaries;
    private final Images images;
    private final JsonMapper mapper;
    private final Languages languages;
    private final Sentences sentences;

    Packages(
            Readings readings,
            SheetAnswers sheets,
            SheetModel model,
            SpringTemplateEngine templates,
            BoundarySets boundaries,
            Images images,
            JsonMapper mapper,
            Languages languages,
            Sentences sentences) {
        this.readings = readings;
        this.sheets = sheets;
        this.model = model;
        this.templates = templates;
        this.boundaries = boundaries;
        this.images = images;
        this.mapper = mapper;
        this.languages = languages;
        this.sentences = sentences;
    }

    /**
     * What a package holds, for its author to look over.
     *
     * @param bytes of the whole
     * @param dataBytes of the file that newer data come in
     * @param lacking what it does without, a sentence each
     */
    public record About(long bytes, long dataBytes, List<Carrier.Said> datasets, List<String> lacking) {}

    /** A package that was made. */
    public record Made(About about, byte[] zip) {}

    /**
     * Packs a dashboard.
     *
     * @throws RefusedException when it is not published, or what it rests on cannot be carried
     */
    public Made make(long dashboard) {
        return spoken(dashboard, this::make);
    }

    /** Works in the language in which a dashboard is handed over, in English where that is left to readers. */
    private <T> T spoken(long dashboard, Function<Reading, T> work) {
        Supplier<Reading> open = () -> readings.published(dashboard, Viewer.STRANGER, NOTHING, List.of());
        Language language = languages.of(open.get().dashboard().language()).orElse(Language.ENGLISH);
        return Language.in(language, () -> work.apply(open.get()));
    }

    private Made make(Reading reading) {
        Carrier.Picked picked = picked(reading);
        byte[] data = data(reading, picked);
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("index.html", page(reading).getBytes(StandardCharsets.UTF_8));
        files.put("data.js", data);
        files.put("core.js", core());
        for (String file : List.of("page.js", "mood.js", "favicon.svg", "sarnik.css")) files.put(file, packed(file));
        for (String font : List.of("bricolage-grotesque", "hanken-grotesk-latin", "hanken-grotesk-latin-ext"))
            files.put("fonts/" + font + ".woff2", resource(STATIC + "fonts/" + font + ".woff2"));
        for (String ground : GROUND)
            files.put(
                    "ground/" + ground + ".js",
                    asset("ground/" + ground, resource(STATIC + "ground/" + ground + ".json")));
        files.put(
                "ground/" + RELIEF + ".js",
                asset(
                        "ground/" + RELIEF,
                        mapper.writeValueAsBytes("data:image/jpeg;base64,"
                                + Base64.getEncoder().encodeToString(resource(STATIC + "ground/" + RELIEF + ".jpg")))));
        shapes(picked.file(), files);
        reading.dashboard()
                .visuals()
                .values()
                .forEach(visual -> filesOf(visual)
                        .forEach(name ->
                                images.find(name).ifPresent(image -> files.put("files/" + name, image.bytes()))));
        files.put("readme.txt", readme(reading.dashboard()).getBytes(StandardCharsets.UTF_8));
        byte[] zip = zip(files);
        return new Made(new About(zip.length, data.length, picked.said(), lacking(reading.dashboard())), zip);
    }

    /** The one file in which newer data are put into a package that stands somewhere already. */
    public byte[] data(long dashboard) {
        return spoken(dashboard, reading -> data(reading, picked(reading)));
    }

    private Carrier.Picked picked(Reading reading) {
        Dashboard dashboard = reading.dashboard();
        try {
            reading.datasets().prepare(dashboard.datasets()).join();
            Carrier.Picked picked = new Carrier(
                            dashboard,
                            reading.datasets(),
                            reading.keys(),
                            reading.datasets()::calculations,
                            LocalDate.now())
                    .pick();
            long rows = picked.file().tables().values().stream()
                    .mapToLong(Table::rows)
                    .sum();
            if (rows > MOST_ROWS)
                throw new RefusedException(
                        "It needs %,d rows, and a package holds up to %,d. Show fewer by a rule on the dataset, or hand it over by a link."
                                .formatted(rows, MOST_ROWS));
            return picked;
        } catch (MisfitException unfit) {
            throw new RefusedException(unfit.getMessage());
        }
    }

    // --- the files -------------------------------------------------------------------------------------

    /** All that changes with the data: what a page needs to know, the data, the shapes that rows brought along. */
    private byte[] data(Reading reading, Carrier.Picked picked) {
        Map<String, Object> own = new TreeMap<>();
        reading.dashboard().visuals().forEach((id, visual) -> {
            if (visual instanceof MapVisual map)
                map.layers().forEach((layer, of) -> own(reading, id, layer, of.dataset(), own));
        });
        byte[] bytes = picked.file().write(DocumentJson::write);
        return ("self.sarnikData = {sheet: " + sheets.written(reading) + ",\nown: " + mapper.writeValueAsString(own)
                        + ",\nspoken: "
                        + mapper.writeValueAsString(spokenThere(picked.file())) + ",\ndata: \""
                        + Base64.getEncoder().encodeToString(gzip(bytes)) + "\"};\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    /** What the core there says, and in which language: each sentence, or place, before what it is called. */
    private Map<String, Object> spokenThere(CarriedFile file) {
        Language language = Language.spoken();
        Locale locale = Locale.forLanguageTag(language.tag());
        Map<String, String> known = new TreeMap<>(sentences.ofPlaces(locale));
        known.keySet().retainAll(file.placeIds());
        known.putAll(sentences.ofCore(locale));
        List<String> all = new ArrayList<>();
        known.forEach((english, own) -> {
            all.add(english);
            all.add(own);
        });
        return Map.of("tag", language.tag(), "sentences", all);
    }

    private void own(Reading reading, String visual, String layer, Long dataset, Map<String, Object> own) {
        if (dataset == null) return;
        LoadedDataset of = reading.datasets().ready(dataset).orElse(null);
        if (of == null) return;
        of.ownShapes().ifPresent(shapes -> {
            for (ShapeBand band : ShapeBand.values())
                own.put(
                        "visuals/" + visual + "/layers/" + layer + "/shapes/" + band,
                        mapper.readTree(gunzip(boundaries.shapes(shapes, band).compressed())));
        });
    }

    private void shapes(CarriedFile file, Map<String, byte[]> files) {
        int number = 0;
        Map<String, Integer> numbers = new TreeMap<>();
        for (BoundarySet set : file.sets()) {
            numbers.put(set.name(), ++number);
            for (ShapeBand band : ShapeBand.values()) {
                String name = "shapes/" + number + "-" + band;
                files.put(
                        name + ".js",
                        asset(name, gunzip(boundaries.shapes(set.name(), band).compressed())));
            }
        }
        files.put(
                "shapes/names.js",
                ("self.sarnikShapes = " + mapper.writeValueAsString(numbers) + ";\n").getBytes(StandardCharsets.UTF_8));
    }

    private String page(Reading reading) {
        ExtendedModelMap filled = new ExtendedModelMap();
        model.fill(reading, "/api/shown/package", filled);
        Context context = new Context(Locale.ENGLISH);
        context.setVariable("spoken", languages);
        filled.forEach(context::setVariable);
        return templates.process("carried", context);
    }

    /** The core within a function, of which the page makes a worker; so it needs no server that allows one. */
    private static byte[] core() {
        return ("self.sarnikCoreSource = function () {\n" + text(resource("/sarnik/browser/core.js")) + "\n"
                        + text(resource(STATIC + "carried/worker.js")) + "\n};\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] packed(String file) {
        return switch (file) {
            case "page.js" -> resource(STATIC + "carried/page.js");
            case "mood.js" -> resource(STATIC + "js/mood.js");
            case "sarnik.css" ->
                text(resource(STATIC + "css/sarnik.css"))
                        .replace("url(/fonts/", "url(fonts/")
                        .getBytes(StandardCharsets.UTF_8);
            default -> resource(STATIC + file);
        };
    }

    private static byte[] asset(String name, byte[] json) {
        byte[] before = ("self.sarnikAsset(\"" + name + "\", ").getBytes(StandardCharsets.UTF_8);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(before);
        out.writeBytes(json);
        out.writeBytes(");\n".getBytes(StandardCharsets.UTF_8));
        return out.toByteArray();
    }

    private static String readme(Dashboard dashboard) {
        return """
                %s

                Put these files on any web server, or open index.html by a double click. Nothing is asked of any
                other address. Newer data: put the file that "./sarnik package %s --data-only" writes in the place of
                data.js; all other files stay.
                """.formatted(dashboard.title(), "DASHBOARD");
    }

    private static List<String> lacking(Dashboard dashboard) {
        List<String> lacking = new ArrayList<>();
        lacking.add("Rows, pictures and prints are made by a server, so a package offers none.");
        if (dashboard.visuals().values().stream()
                .anyMatch(v -> v instanceof MapVisual map
                        && map.ground() != null
                        && map.ground().mood() != null
                        && map.ground().mood().startsWith("source:")))
            lacking.add("Grounds from other servers stay behind: such maps stand on the ground that ships.");
        return lacking;
    }

    private static <V extends Visual> java.util.Set<String> filesOf(V visual) {
        return Kinds.ALL.of(visual).files(visual);
    }

    // --- bytes -----------------------------------------------------------------------------------------

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.UTF_8);
    }

    private static byte[] resource(String name) {
        try (InputStream in = Packages.class.getResourceAsStream(name)) {
            if (in == null) throw new IllegalStateException(name + " does not ship with the application");
            return in.readAllBytes();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private static byte[] gzip(byte[] bytes) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
            gzip.write(bytes);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }

    private static byte[] gunzip(byte[] bytes) {
        try (GZIPInputStream in = new GZIPInputStream(new java.io.ByteArrayInputStream(bytes))) {
            return in.readAllBytes();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private static byte[] zip(Map<String, byte[]> files) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.setLevel(9);
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                zip.putNextEntry(new ZipEntry(file.getKey()));
                zip.write(file.getValue());
                zip.closeEntry();
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }
}
