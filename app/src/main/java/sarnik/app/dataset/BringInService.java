package sarnik.app.dataset;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;
import sarnik.app.database.DatabaseRows;
import sarnik.app.outside.RemoteTables;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Progress;
import sarnik.data.About;
import sarnik.format.BoundaryFiles;
import sarnik.format.FeatureSource;
import sarnik.format.TableFile;
import sarnik.geo.Area;
import sarnik.geo.BoundaryCheck;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.sql.SourceColumn;
import sarnik.table.ColumnType;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableParts;

/** Takes files in: reads them, guesses types and placing, and keeps what the person has looked over. */
@Service
class BringInService {

    /** Countries in which a date is written with its month first. */
    private static final Set<String> MONTH_FIRST = Set.of("US", "PH", "FM", "PW", "GU", "AS", "MP", "VI", "PR");

    private final DatasetService datasets;
    private final RowKeeper keeper;
    private final WaitingRoom room;
    private final LikelyPlacing likely;
    private final RemoteTables remote;
    private final DatabaseRows databases;
    private final StayingKeeper staying;
    private final HeldRows held;

    BringInService(
            DatasetService datasets,
            RowKeeper keeper,
            WaitingRoom room,
            LikelyPlacing likely,
            RemoteTables remote,
            DatabaseRows databases,
            StayingKeeper staying,
            HeldRows held) {
        this.held = held;
        this.databases = databases;
        this.staying = staying;
        this.remote = remote;
        this.datasets = datasets;
        this.keeper = keeper;
        this.room = room;
        this.likely = likely;
        room.readBy(this::reader);
    }

    /**
     * Takes files and begins to read them.
     *
     * @param refreshes the dataset whose newer rows they hold, whose way of reading then holds too; null for a new
     *     dataset
     * @return the id under which they wait
     * @throws RefusedException when as many of this person's wait as may, or memory is full
     */
    String take(List<MultipartFile> uploads, Long refreshes, SignedIn person) {
        if (refreshes != null) {
            datasets.check(refreshes, May.COMPOSE, person);
            datasets.description(refreshes).ifPresent(RowKeeper::checkHeld);
        }
        Intake intake = refreshes == null ? Intake.NONE : keeper.intake(refreshes);
        List<WaitingRoom.Upload> files = uploads.stream()
                .map(upload -> (WaitingRoom.Upload) file -> {
                    upload.transferTo(file);
                    return upload.getOriginalFilename();
                })
                .toList();
        return room.take(files, person, new WaitingFiles.Asked(intake, refreshes, null));
    }

    /**
     * Takes a table from an address and begins to read it.
     *
     * @throws RefusedException when the address is not allowed or does not answer with a table; as {@link #take} as
     *     well
     */
    String fetch(String address, SignedIn person) {
        if (address == null || address.isBlank()) throw new RefusedException("Write the address of a table.");
        if (DatabaseRows.stays(address)) return stay(databases.staying(address), person);
        WaitingRoom.Upload fetched = file -> remote.fetch(address.strip(), file);
        return room.take(List.of(fetched), person, new WaitingFiles.Asked(Intake.NONE, null, null));
    }

    /** Whether rows, once they are kept, are asked where they are kept, since they are too many to be held. */
    boolean outgrows(BringIn bringIn) {
        Reading reading = bringIn.reading();
        return !held.holds(reading.parts().bytes(), reading.table().names().size());
    }

    /** What the database is called in which rows stay. */
    String where(Stays stays) {
        return staying.where(stays);
    }

    /** Reads some of the rows that are to stay in their database, so that they can be looked over. */
    private String stay(DatabaseRows.StayingAt at, SignedIn person) {
        Stays stays = new Stays(at.database(), at.of(), databases.columns(at), Stays.USUAL_KEEP);
        Map<String, ColumnType> types = new LinkedHashMap<>();
        stays.columns().forEach(column -> types.put(column.at(), column.type()));
        WaitingRoom.Upload some = file -> databases.some(at, file);
        Intake intake = new Intake(null, Shaping.ofTypes(types));
        return room.take(List.of(some), person, new WaitingFiles.Asked(intake, null, stays));
    }

    /**
     * Reads waiting files again in another way. Where that does not work they still wait as they were.
     *
     * @throws sarnik.table.UnreadableTableException when no table comes of it
     */
    void reshape(String id, Intake intake, SignedIn person) {
        BringIn before = room.get(id, person);
        room.again(id, person, new WaitingFiles.Asked(intake, before.refreshes(), before.stays()));
    }

    private WaitingRoom.Reader reader(WaitingFiles.Asked asked, SignedIn person) {
        Intake intake = asked.intake();
        Long refreshes = asked.refreshes();
        return (sent, progress, share) -> {
            TableFiles files = TableFiles.open(sent.files(), sent.names(), intake);
            // Of rows that stay some were fetched, all of which are looked at.
            long most = asked.stays() != null ? Long.MAX_VALUE : held.whileRead(files.columns());
            if (most == Long.MAX_VALUE) share.become(WaitingRoom.whileRead(sent.files()), sent.words());
            Reading reading = files.read(progress::at, most);
            Table table = reading.table();
            share.become(table.bytes(), sent.words());
            progress.next("Placing");
            Placing placing = refreshes == null
                    ? likely.of(reading, files.first().areas(), person)
                    : datasets.description(refreshes).map(Description::placing).orElse(null);
            Comparison comparison = refreshes == null ? null : compare(refreshes, reading, intake, progress);
            BringIn.Days days = days(reading, placing);
            if (days != null && days.monthFirst())
                reading = TableFiles.open(sent.files(), sent.names(), intake.withMonthFirst())
                        .read(progress::at, most);
            String asks = files.first().features().flatMap(FeatureSource::asks).orElse(null);
            return new BringIn(
                    sent.id(),
                    person.id(),
                    sent.files(),
                    sent.names(),
                    intake,
                    reading,
                    files.first().kind(),
                    files.first().sheets(),
                    files.first().areas(),
                    asks,
                    placing,
                    refreshes,
                    comparison,
                    asked.stays(),
                    days);
        };
    }

    /**
     * Where nothing in the file tells whether days or months come first, the country of most rows does; null where
     * there is no question.
     */
    private BringIn.Days days(Reading reading, Placing placing) {
        List<String> either = reading.said().entrySet().stream()
                .filter(s -> s.getValue().either())
                .map(Map.Entry::getKey)
                .toList();
        if (either.isEmpty()) return null;
        String country = placing == null
                ? null
                : likely.countryOf(reading.table(), placing).orElse(null);
        if (country == null) return new BringIn.Days(false, either, "as in most of the world");
        boolean monthFirst = MONTH_FIRST.contains(country);
        return new BringIn.Days(
                monthFirst,
                either,
                "as is usual where most of the rows lie (%s)"
                        .formatted(new Locale("", country).getDisplayCountry(Locale.ENGLISH)));
    }

    private Comparison compare(long dataset, Reading reading, Intake intake, Progress progress) {
        TableParts newer = reading.parts();
        progress.next("Comparing");
        RowKeeper.Beside beside = keeper.compare(dataset, newer, progress);
        progress.next("Placing");
        Description said = datasets.description(dataset).orElseThrow(() -> RefusedException.gone("dataset"));
        PlacingPreview placing = null;
        String unfit = null;
        try {
            if (said.placing() != null)
                placing = PlacingPreview.of(datasets.placeNewer(dataset, newer.sample(), progress));
        } catch (RefusedException cannot) {
            unfit = cannot.getMessage();
        }
        return new Comparison(
                beside.against(),
                beside.before(),
                beside.below(),
                beside.diff(),
                placing,
                beside.rules(),
                reading.otherUnits(intake.shaping().units()),
                unfit);
    }

    /** Where other rows lie may be taken from datasets only that the person may read. */
    private void mayTie(Placing placing, SignedIn person) {
        if (placing == null) return;
        for (Placing.ByTie tie : placing.ties().toList()) {
            try {
                datasets.check(tie.dataset(), May.READ, person);
            } catch (RefusedException closed) {
                throw new RefusedException("The dataset of column “" + tie.equals()
                        + "” that the rows are tied to has gone, or is not open to you. Choose another one.");
            }
        }
    }

    PlacedTable place(BringIn bringIn, Placing placing, SignedIn person, Progress progress) {
        if (placing == null) throw new RefusedException("Say how the rows are placed.");
        mayTie(placing, person);
        return datasets.place(bringIn.reading().table(), placing, progress);
    }

    /**
     * The areas of waiting files, checked and mended.
     *
     * @param code column of codes
     * @param name column of names; null for none
     * @param parent column of the codes of wider areas; null for none
     */
    BoundaryCheck areas(BringIn bringIn, String code, String name, String parent) {
        if (code == null || code.isBlank())
            throw new RefusedException("Choose the column that holds the codes of the areas.");
        if (bringIn.asks() != null) throw new RefusedException(bringIn.asks());
        List<Area> areas = new ArrayList<>();
        try {
            for (Path file : bringIn.files()) {
                FeatureSource features = TableFile.open(file, bringIn.intake().choices())
                        .features()
                        .orElseThrow(() -> new RefusedException("The file holds no shapes."));
                areas.addAll(BoundaryFiles.areas(features, code, name, parent));
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        return BoundaryCheck.of(areas);
    }

    /** Keeps the file as a dataset and lets it wait no more. Of several at once only one keeps it. */
    long keep(BringIn bringIn, String name, Placing placing, SignedIn person, Progress progress) {
        mayTie(placing, person);
        String title = name == null || name.isBlank() ? bringIn.name() : name.strip();
        if (title.length() > 120)
            throw new RefusedException("The name is longer than 120 characters. Choose a shorter one.");
        if (bringIn.stays() != null)
            return room.claimed(
                    bringIn.id(),
                    person,
                    () -> staying.keep(title, chosen(bringIn), placing, units(bringIn.reading()), person, progress));
        return room.claimed(
                bringIn.id(),
                person,
                () -> keeper.keep(
                        title,
                        bringIn.reading().parts(),
                        placing,
                        kept(bringIn),
                        units(bringIn.reading()),
                        bringIn.reading().troubles().total(),
                        bringIn.fileName(),
                        person,
                        progress));
    }

    /** The columns of rows that stay, as they were looked over: named, typed, left out. */
    private static Stays chosen(BringIn bringIn) {
        Shaping shaping = bringIn.intake().shaping();
        if (shaping.turn() != null || !shaping.missing().isEmpty() || shaping.decimalMark() != null)
            throw new RefusedException(
                    "Of rows that stay in their database, columns can be named, typed and left out. For anything else write a query, or bring the rows in.");
        Table table = bringIn.reading().table();
        List<SourceColumn> columns = new ArrayList<>();
        for (String name : table.names()) {
            String source = bringIn.reading().source().get(name);
            SourceColumn there = bringIn.stays().columns().stream()
                    .filter(c -> c.at().equals(source))
                    .findFirst()
                    .orElseThrow(() -> new RefusedException("There is no column “" + source + "” there any more."));
            ColumnType type = table.column(name).type();
            if (!there.held().fits(type))
                throw new RefusedException(
                        "“%s” holds something there that cannot be read as %s while the rows stay. Choose another type, or bring the rows in."
                                .formatted(name, type.words()));
            columns.add(new SourceColumn(name, there.at(), there.held(), type));
        }
        return new Stays(
                bringIn.stays().database(),
                bringIn.stays().of(),
                columns,
                bringIn.stays().keep());
    }

    /** How its files are read from now on: as these were, with what was guessed of types, marks, days and months, and found of units. */
    private static Intake kept(BringIn bringIn) {
        Shaping shaping =
                bringIn.intake().shaping().withTypesOf(bringIn.reading().table());
        Boolean monthFirst = bringIn.reading().monthFirst();
        if (monthFirst != null) shaping = shaping.withMonthFirst(monthFirst);
        Shaping.DecimalMark mark = bringIn.reading().marks().decimal();
        if (mark != null) shaping = shaping.withEitherMark(mark);
        return new Intake(
                bringIn.intake().choices(), shaping.withUnits(bringIn.reading().units()));
    }

    /** The units that stand beside the numbers of the file. */
    private static About units(Reading reading) {
        Map<String, About.OfColumn> columns = new LinkedHashMap<>();
        reading.said().forEach((name, said) -> {
            if (!said.unit().isEmpty()) columns.put(name, new About.OfColumn(said.unit(), ""));
        });
        return new About(null, null, null, null, null, columns);
    }

    /**
     * Lets a dataset serve the files' rows as its next version.
     *
     * @param append whether they are put below those that are served now
     */
    void serve(BringIn bringIn, boolean append, SignedIn person, Progress progress) {
        if (bringIn.refreshes() == null)
            throw new RefusedException("This file is not brought in for a dataset. Keep it as a new one.");
        if (append && !bringIn.comparison().units().isEmpty())
            throw new RefusedException(
                    String.join(" ", bringIn.comparison().units())
                            + " Such rows cannot be put below the others. Let them take the place of the old ones, or mend the file.");
        RowKeeper.Newer newer = new RowKeeper.Newer(
                bringIn.reading().parts(),
                append,
                bringIn.comparison().against(),
                bringIn.reading().troubles().total(),
                bringIn.fileName(),
                bringIn.intake().shaping(),
                bringIn.reading().units());
        room.claimed(bringIn.id(), person, () -> keeper.refresh(bringIn.refreshes(), newer, person, progress));
    }
}
