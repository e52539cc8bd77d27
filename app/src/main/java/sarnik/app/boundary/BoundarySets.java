package sarnik.app.boundary;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.zip.GZIPInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.uses.Uses;
import sarnik.app.web.RefusedException;
import sarnik.data.OwnShapes;
import sarnik.format.BoundaryFiles;
import sarnik.formula.Surroundings;
import sarnik.geo.Area;
import sarnik.geo.AreaBytes;
import sarnik.geo.BoundarySet;
import sarnik.geo.IndexedSet;
import sarnik.geo.ShapeBand;
import sarnik.place.Land;

/** The boundary sets that ship and those that people have brought in, by name. */
@Service
public class BoundarySets {

    private static final Logger LOG = LoggerFactory.getLogger(BoundarySets.class);
    private static final int MOST_HELD = 40;

    /** How far off the drawn coast still counts as land, degrees: shapes at 1:50 m cut islands and harbours off. */
    private static final double COAST = 0.1;

    private final BoundarySetRepository stored;
    private final PeopleService people;
    private final Uses uses;
    private final TransactionTemplate transaction;
    private final AtomicLong seen = new AtomicLong();
    private final Cache<String, IndexedSet> held =
            Caffeine.newBuilder().maximumSize(MOST_HELD).build();
    private final Cache<String, String> contents =
            Caffeine.newBuilder().maximumSize(MOST_HELD).build();
    private final ShapeStore store;

    /**
     * Shapes of a set for a band of zooms, ready to be sent.
     *
     * @param tag changes with the content
     * @param compressed JSON, by gzip
     */
    public record Shapes(String tag, byte[] compressed) {

        /**
         * The answer that the browser keeps for as long as the content does not change; nothing but that where it has
         * it already.
         */
        public ResponseEntity<byte[]> answer(HttpServletRequest request) {
            ResponseEntity.BodyBuilder answer = ResponseEntity.ok()
                    .eTag("\"" + tag + "\"")
                    .cacheControl(CacheControl.maxAge(Duration.ofHours(1)).cachePrivate())
                    .varyBy(HttpHeaders.ACCEPT_ENCODING)
                    .contentType(MediaType.APPLICATION_JSON);
            String had = request.getHeader(HttpHeaders.IF_NONE_MATCH);
            if (had != null && had.contains("\"" + tag + "\""))
                return ResponseEntity.status(HttpStatus.NOT_MODIFIED)
                        .eTag("\"" + tag + "\"")
                        .build();
            String accepted = request.getHeader(HttpHeaders.ACCEPT_ENCODING);
            if (accepted != null && accepted.contains("gzip"))
                return answer.header(HttpHeaders.CONTENT_ENCODING, "gzip").body(compressed);
            try (GZIPInputStream plain = new GZIPInputStream(new ByteArrayInputStream(compressed))) {
                return answer.body(plain.readAllBytes());
            } catch (IOException impossible) {
                throw new UncheckedIOException(impossible);
            }
        }
    }

    /** A set as lists show it. */
    public record Listed(String name, String level, String credit, int areas, boolean ships) {}

    BoundarySets(
            BoundarySetRepository stored,
            PeopleService people,
            Uses uses,
            ShapeStore store,
            TransactionTemplate transaction) {
        this.store = store;
        this.stored = stored;
        this.people = people;
        this.uses = uses;
        this.transaction = transaction;
    }

    /** All sets, those that ship first. */
    public List<Listed> all() {
        List<Listed> all = new ArrayList<>();
        for (BoundaryFiles.Shipped shipped : BoundaryFiles.Shipped.values()) {
            BoundarySet set = BoundaryFiles.shipped(shipped);
            all.add(new Listed(
                    set.name(), set.level(), set.credit(), set.areas().size(), true));
        }
        stored.lines()
                .forEach(line -> all.add(
                        new Listed(line.getName(), line.getLevel(), line.getCredit(), line.getAreaCount(), false)));
        return all;
    }

    /** Names of all sets. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        Arrays.stream(BoundaryFiles.Shipped.values())
                .map(BoundaryFiles.Shipped::title)
                .forEach(names::add);
        stored.lines().forEach(line -> names.add(line.getName()));
        return names;
    }

    /**
     * Sets whose codes a table may hold, the likeliest first: those that were brought in, then provinces and
     * municipalities.
     */
    public List<BoundarySet> likely() {
        List<BoundarySet> sets = new ArrayList<>();
        stored.lines().forEach(line -> find(line.getName()).ifPresent(sets::add));
        sets.add(BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES));
        sets.add(BoundaryFiles.shipped(BoundaryFiles.Shipped.MUNICIPALITIES));
        return sets;
    }

    /** The set of this name. */
    public Optional<BoundarySet> find(String name) {
        changes();
        return indexed(name).map(IndexedSet::set);
    }

    /** The set of this name, which has to be there. */
    public BoundarySet needed(String name) {
        return find(name).orElseThrow(() -> RefusedException.gone("boundary set"));
    }

    /** The set of this name with the index that finds its areas. */
    public Optional<IndexedSet> indexed(String name) {
        IndexedSet known = held.getIfPresent(name);
        if (known != null) return Optional.of(known);
        Optional<BoundarySet> set = Arrays.stream(BoundaryFiles.Shipped.values())
                .filter(s -> s.title().equals(name))
                .findFirst()
                .map(BoundaryFiles::shipped)
                .or(() -> transaction
                        .execute(t -> stored.findById(name))
                        .map(s -> new BoundarySet(name, s.getLevel(), s.getCredit(), AreaBytes.read(s.getAreas()))
                                .compact()));
        return set.map(s -> held.get(name, n -> new IndexedSet(s)));
    }

    /** Land and sea, by the countries of the world. */
    public Land land() {
        return Land.of(
                indexed(BoundaryFiles.Shipped.COUNTRIES.title()).orElseThrow().finder(), COAST);
    }

    /** Finds names of areas for formulas; the set is read when it is first asked. */
    public Surroundings.AreaAt at(String name) {
        return (lon, lat) -> {
            IndexedSet known = indexed(name).orElseThrow(() -> RefusedException.gone("boundary set"));
            return known.at(lon, lat).map(Area::name).orElse(null);
        };
    }

    /**
     * Keeps areas as a set.
     *
     * @throws RefusedException when the name is taken or empty, or there is no area
     */
    public void keep(String name, String level, String credit, List<Area> areas, SignedIn person) {
        String clean = name == null ? "" : name.strip();
        if (clean.isEmpty() || clean.length() > 120 || clean.contains("'") || clean.contains("/"))
            throw new RefusedException("A boundary set's name has 1 to 120 characters, without ' and /.");
        if (names().contains(clean))
            throw new RefusedException("There is a boundary set called “" + clean + "” already. Choose another name.");
        if (areas.isEmpty()) throw new RefusedException("None of the shapes can be used as an area.");
        String ownLevel = level == null || level.isBlank() ? "area" : level.strip();
        transaction.executeWithoutResult(t -> {
            stored.save(new StoredBoundarySet(
                    clean,
                    ownLevel,
                    credit == null ? "" : credit.strip(),
                    areas.size(),
                    AreaBytes.write(areas),
                    person.id(),
                    Clock.systemUTC().instant()));
            stored.countChange();
        });
    }

    /** Goes up by one when a set comes or goes, in any instance: what rests on sets is made anew then. */
    public long changes() {
        long now = stored.changes();
        // A set that was taken away elsewhere may have come back as another under its name.
        if (seen.getAndSet(now) != now) {
            held.invalidateAll();
            contents.invalidateAll();
        }
        return now;
    }

    /**
     * Takes a set away that was brought in.
     *
     * @throws RefusedException when it ships, when it is another's, or when something rests on it; the message names it
     */
    void remove(String name, SignedIn person) {
        if (Arrays.stream(BoundaryFiles.Shipped.values())
                .anyMatch(s -> s.title().equals(name)))
            throw new RefusedException("This boundary set ships with Sarnik and stays.");
        transaction.executeWithoutResult(t -> {
            StoredBoundarySet set =
                    stored.findWithLockByName(name).orElseThrow(() -> RefusedException.gone("boundary set"));
            people.checkMayChange(name, set.getCreatedBy(), false, person);
            uses.refuseWhereUsed("The boundary set", uses.ofBoundarySet(name));
            stored.delete(set);
            stored.countChange();
        });
    }

    /** The shapes of a set, simplified for a band of zooms. */
    public Shapes shapes(String name, ShapeBand band) {
        BoundarySet set = needed(name);
        String tag = contents.get(name, n -> ShapeStore.contentOf(set)) + "-" + band;
        return new Shapes(tag, store.compressed(tag, () -> set, band, false));
    }

    /** The shapes that rows brought along, simplified for a band of zooms; what would vanish in it stays as a dot. */
    public Shapes shapes(OwnShapes own, ShapeBand band) {
        String tag = own.tag() + "-" + band;
        return new Shapes(tag, store.compressed(tag, own::set, band, true));
    }

    /** Makes the shapes of the sets that ship before somebody waits for them. */
    @EventListener(ApplicationReadyEvent.class)
    void warm() {
        Thread warming = new Thread(
                () -> {
                    try {
                        for (ShapeBand band : ShapeBand.values())
                            for (BoundaryFiles.Shipped shipped : BoundaryFiles.Shipped.values())
                                shapes(shipped.title(), band);
                    } catch (RuntimeException failed) {
                        LOG.warn("Shapes could not be made ahead; they are made when they are asked for", failed);
                    }
                },
                "shapes");
        warming.setDaemon(true);
        warming.setPriority(Thread.MIN_PRIORITY);
        warming.start();
    }
}
